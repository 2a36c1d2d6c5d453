-- A bench book. Portable SQL: what only SQLite understands stands in SqliteDialect.
-- docs/book-format.md describes every column.

CREATE TABLE channel (
  id       VARCHAR(64) PRIMARY KEY,
  place    INTEGER     NOT NULL,
  tag      VARCHAR(64) NOT NULL,
  document TEXT        NOT NULL
);

CREATE TABLE revision (
  channel_id VARCHAR(64)  NOT NULL,
  number     INTEGER      NOT NULL,
  name       VARCHAR(200) NOT NULL,
  made_at    VARCHAR(32)  NOT NULL,
  document   TEXT         NOT NULL,
  hash       VARCHAR(64)  NOT NULL,
  PRIMARY KEY (channel_id, number)
);

CREATE TABLE log (
  number        INTEGER     PRIMARY KEY,
  made_at       VARCHAR(32) NOT NULL,
  kind          VARCHAR(32) NOT NULL,
  channel_id    VARCHAR(64) NOT NULL,
  text          TEXT        NOT NULL,
  document_hash VARCHAR(64) NOT NULL,
  hash          VARCHAR(64) NOT NULL
);
