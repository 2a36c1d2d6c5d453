-- Instruments of the bench, and runs with every reading that was taken in them.

CREATE TABLE instrument (
  place    INTEGER      PRIMARY KEY,
  name     VARCHAR(200) NOT NULL,
  document TEXT         NOT NULL
);

CREATE TABLE run (
  id       VARCHAR(64)  PRIMARY KEY,
  began_at VARCHAR(40)  NOT NULL,
  title    VARCHAR(200) NOT NULL,
  plan     TEXT         NOT NULL
);

-- One row a channel and sweep; a channel that gave nothing has no reading in it.
CREATE TABLE reading (
  run_id   VARCHAR(64)      NOT NULL,
  sweep    INTEGER          NOT NULL,
  channel  INTEGER          NOT NULL,
  at       INTEGER          NOT NULL,
  target   INTEGER          NOT NULL,
  applied  DOUBLE PRECISION NULL,
  raw      DOUBLE PRECISION NULL,
  PRIMARY KEY (run_id, sweep, channel)
) WITHOUT ROWID;

-- What was done in a run and the points that came of it; each carries a hash of itself, of the
-- entry before and of all readings since that one.
CREATE TABLE run_entry (
  run_id   VARCHAR(64) NOT NULL,
  number   INTEGER     NOT NULL,
  at       INTEGER     NOT NULL,
  kind     VARCHAR(20) NOT NULL,
  sweeps   INTEGER     NOT NULL,
  document TEXT        NOT NULL,
  hash     CHAR(64)    NOT NULL,
  PRIMARY KEY (run_id, number)
);
