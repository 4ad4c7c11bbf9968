-- Borage 1 closes: its hives move to Clover 1, its two transfers are struck out, and it goes.
UPDATE hive SET apiary_id = 3 WHERE apiary_id = 7;
DELETE FROM transfer WHERE from_apiary = 7 OR to_apiary = 7;
DELETE FROM apiary WHERE apiary_id = 7;
