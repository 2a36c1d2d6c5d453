-- Sensor cards and the drawer of parts.

CREATE TABLE card (
  id       VARCHAR(64)  PRIMARY KEY,
  place    INTEGER      NOT NULL,
  name     VARCHAR(200) NOT NULL,
  document TEXT         NOT NULL
);

CREATE TABLE stock (
  place     INTEGER      PRIMARY KEY,
  name      VARCHAR(200) NOT NULL,
  ohms      DOUBLE PRECISION NOT NULL,
  tolerance DOUBLE PRECISION NOT NULL,
  watts     DOUBLE PRECISION NOT NULL,
  volts     DOUBLE PRECISION NOT NULL,
  quantity  INTEGER      NOT NULL
);
