-- How long a round of practice took, and how often a probe was put on live parts; null for rounds
-- from before these were counted.

ALTER TABLE practice ADD COLUMN seconds INTEGER NULL;
ALTER TABLE practice ADD COLUMN live INTEGER NULL;
ALTER TABLE practice ADD COLUMN live_planned INTEGER NULL;
