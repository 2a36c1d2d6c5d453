-- Results of practice, one line each, never changed; and what a bench weighs a fault by.

CREATE TABLE practice (
  place        INTEGER      PRIMARY KEY,
  learner      VARCHAR(200) NOT NULL,
  channel      VARCHAR(200) NOT NULL,
  difficulty   VARCHAR(40)  NOT NULL,
  hidden       VARCHAR(400) NOT NULL,
  named        VARCHAR(400) NOT NULL,
  correct      INTEGER      NOT NULL,
  measurements INTEGER      NOT NULL,
  planned      INTEGER      NOT NULL,
  date         VARCHAR(40)  NOT NULL
);

CREATE TABLE weighing (
  place    INTEGER PRIMARY KEY,
  document TEXT    NOT NULL
);
