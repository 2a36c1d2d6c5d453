-- What receivers of one make want.

CREATE TABLE receiver_shape (
  place    INTEGER      PRIMARY KEY,
  name     VARCHAR(200) NOT NULL,
  document TEXT         NOT NULL
);
