#!/usr/bin/env python3
"""Which of the planted faults an evidence folder lacks: missing.py PLANTED.csv EVIDENCE_FOLDER. Prints how many are there."""
import csv
import glob
import os
import re
import sys

found = set()
for path in glob.glob(os.path.join(sys.argv[2], "*.csv")):
    kind = re.search(r"-([a-z_]+)\.csv$", path).group(1).replace("_", " ")
    with open(path, newline="") as rows:
        for row in csv.DictReader(rows):
            found.add((row["file"].removesuffix(".csv"), row["row"], kind))
with open(sys.argv[1], newline="") as planted:
    wanted = [(row["table"], row["row"], row["kind"]) for row in csv.DictReader(planted)]
missing = [fault for fault in wanted if fault not in found]
print(len(wanted) - len(missing), "of", len(wanted), "planted faults found;", len(found), "rows of evidence in all")
for fault in missing:
    print("missing:", *fault)
sys.exit(1 if missing else 0)
