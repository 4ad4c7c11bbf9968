#!/usr/bin/env python3
"""Made-up people, some of whom were entered twice, and how many of those a rule finds.

people.py make ROWS DOUBLES SEED FOLDER   writes people.csv, and truth.csv: who is whom, and which slip tells them apart
people.py score FOLDER RESULT             holds the evidence of `taxiomet check --evidence RESULT` against truth.csv

People live in households that share a surname, an address and often a telephone; a few are twins, and a few sons are called as their
fathers are. Names are about as common as names are: the commonest given name has 2 in 100
people, the commonest surname 1 in 140, and the n-th falls off as 1/n. A double has one slip that says its kind, and up to two more.
"""
import csv
import datetime
import os
import random
import sys

KINDS = ["case", "accents", "blanks", "punctuation", "word order", "other letter", "letter dropped or doubled",
         "letters turned", "day and month", "moved or missing"]
SYLLABLES = ["ba", "bel", "cor", "da", "den", "el", "fa", "fen", "gar", "hil", "is", "jo", "ka", "kel", "la", "lin", "mar", "mel",
             "na", "nor", "o", "pe", "quin", "ra", "rix", "sa", "sel", "ta", "tho", "u", "va", "wen", "wil", "ya", "zel"]
ENDS = ["a", "e", "en", "ine", "is", "o", "on", "us", "y", "ick", "ow", "er", "ley", "win"]
ACCENTS = {"a": "á", "e": "é", "o": "ö", "u": "ü", "i": "í", "n": "ñ", "c": "ç"}
PLACES = ["Lane", "Row", "Hill", "Street", "Green", "Close", "Fold", "Way"]


def words(rng, count, least, most, accented):
    found = []
    seen = set()
    while len(found) < count:
        word = "".join(rng.choice(SYLLABLES) for _ in range(rng.randint(least, most))) + rng.choice(ENDS)
        if rng.random() < accented:
            at = [i for i, c in enumerate(word) if c in ACCENTS and i > 0]
            if at:
                i = rng.choice(at)
                word = word[:i] + ACCENTS[word[i]] + word[i + 1:]
        if word not in seen:
            seen.add(word)
            found.append(word.capitalize())
    return found


class Names:
    def __init__(self, rng, words, offset):
        self.rng, self.words = rng, words
        self.weights = []
        sum_ = 0
        for i in range(len(words)):
            sum_ += 1 / (i + offset)
            self.weights.append(sum_)

    def next(self):
        return self.rng.choices(self.words, cum_weights=self.weights)[0]


def household(rng, given, surnames, streets, towns):
    surname = surnames.next()
    if rng.random() < 0.05:
        surname += "-" + surnames.next()
    street = f"{rng.choice(streets)} {rng.randint(1, 90)}"
    town = towns.next()
    shared = None if rng.random() < 0.4 else phone(rng)
    people = []
    for i in range(rng.choices([1, 2, 3, 4, 5], [40, 30, 13, 12, 5])[0]):
        name = given.next()
        if rng.random() < 0.12:
            name += " " + given.next()
        born = datetime.date(1930, 1, 1) + datetime.timedelta(days=rng.randrange(80 * 365))
        if people and rng.random() < 0.01:
            born = people[-1]["born_on"]
        elif people and rng.random() < 0.01:
            name = people[0]["given_name"]
        own = shared if shared and rng.random() < 0.8 else phone(rng)
        people.append({"given_name": name, "surname": surname if i < 2 or rng.random() < 0.9 else surnames.next(),
                       "born_on": born if rng.random() > 0.03 else None, "street": street, "town": town,
                       "phone": own if rng.random() > 0.15 else None})
    return people


def phone(rng):
    return f"0{rng.randint(10, 99)} {rng.randint(100000, 999999)}"


def letter_at(rng, text):
    return rng.choice([i for i in range(1, len(text)) if text[i].isalpha()] or [len(text) - 1])


def slip(rng, person, kind):
    """Makes a slip of a kind; False where this person has nothing for it."""
    column = rng.choice([c for c in ("given_name", "surname", "street") if person[c]])
    text = person[column]
    if kind == "case":
        person[column] = rng.choice([str.upper, str.lower])(text)
    elif kind == "accents":
        with_accents = [c for c in ("given_name", "surname") if any(a in person[c] for a in ACCENTS.values())]
        if not with_accents:
            return False
        plain = {a: c for c, a in ACCENTS.items()}
        person[with_accents[0]] = "".join(plain.get(c, c) for c in person[with_accents[0]])
    elif kind == "blanks":
        at = letter_at(rng, text)
        person[column] = rng.choice([text.replace(" ", "  ", 1) + " ", " " + text, text[:at] + " " + text[at:], text.replace(" ", "")])
    elif kind == "punctuation":
        if person["phone"] and rng.random() < 0.5:
            person["phone"] = person["phone"].replace(" ", rng.choice(["/", "-", ""]))
        else:
            person[column] = rng.choice([text.replace(" ", ", ", 1) + ".", text.replace(" ", "-"), text + "."])
    elif kind == "word order":
        several = [c for c in ("given_name", "surname", "street") if len((person[c] or "").replace("-", " ").split()) > 1]
        if not several:
            return False
        column = rng.choice(several)
        parts = person[column].replace("-", " ").split()
        person[column] = " ".join(parts[1:] + parts[:1])
    elif kind == "other letter":
        at = letter_at(rng, text)
        person[column] = text[:at] + rng.choice("abcdefghijklmnoprstuvwxyz") + text[at + 1:]
    elif kind == "letter dropped or doubled":
        at = letter_at(rng, text)
        person[column] = rng.choice([text[:at] + text[at + 1:], text[:at] + text[at] + text[at:]])
    elif kind == "letters turned":
        at = letter_at(rng, text)
        person[column] = text[:at - 1] + text[at] + text[at - 1] + text[at + 1:]
    elif kind == "day and month":
        born = person["born_on"]
        if born is None or born.day > 12 or born.day == born.month:
            return False
        person["born_on"] = born.replace(month=born.day, day=born.month)
    elif rng.random() < 0.5:
        person["street"] = f"{rng.choice(PLACES)} {rng.randint(1, 90)}"
        person["phone"] = phone(rng)
    else:
        person[rng.choice(["born_on", "phone", "street", "town"])] = None
    return True


def make(rows, doubles, seed, folder):
    rng = random.Random(seed)
    given = Names(rng, words(rng, 900, 1, 2, 0.15), 11)
    surnames = Names(rng, words(rng, 9000, 2, 3, 0.1), 25)
    streets = [f"{w} {rng.choice(PLACES)}" for w in words(rng, 1500, 1, 2, 0.05)]
    towns = Names(rng, words(rng, 120, 2, 2, 0), 3)
    people = []
    while len(people) < rows - doubles:
        people += household(rng, given, surnames, streets, towns)
    people = people[:rows - doubles]
    entered = [(p, i, "") for i, p in enumerate(people)]
    some = rng.sample(range(len(people)), len(people))
    made = 0
    for i in some:
        if made == doubles:
            break
        kind = KINDS[made % len(KINDS)]
        copy = dict(people[i])
        if not slip(rng, copy, kind):
            continue
        for _ in range(rng.choices([0, 1, 2], [50, 35, 15])[0]):
            slip(rng, copy, rng.choice(KINDS))
        entered.append((copy, i, kind))
        made += 1
    rng.shuffle(entered)
    os.makedirs(folder, exist_ok=True)
    columns = ["given_name", "surname", "born_on", "street", "town", "phone"]
    with open(f"{folder}/people.csv", "w", newline="", encoding="utf-8") as out, \
            open(f"{folder}/truth.csv", "w", newline="", encoding="utf-8") as truth:
        table, known = csv.writer(out), csv.writer(truth)
        table.writerow(["person_no"] + columns)
        known.writerow(["row", "person", "kind"])
        for n, (person, who, kind) in enumerate(entered, 1):
            table.writerow([n] + [person[c] if person[c] is not None else "" for c in columns])
            known.writerow([n, who, kind])


def pairs(groups):
    return {(a, b) for rows in groups.values() for a in rows for b in rows if a < b}


def score(folder, result):
    person, kinds = {}, {}
    with open(f"{folder}/truth.csv", encoding="utf-8") as truth:
        for line in csv.DictReader(truth):
            person.setdefault(line["person"], []).append(int(line["row"]))
            if line["kind"]:
                kinds[line["person"]] = line["kind"]
    true = pairs(person)
    found = {}
    name = next(n for n in sorted(os.listdir(result)) if "likely" in n)
    with open(f"{result}/{name}", encoding="utf-8") as evidence:
        for line in csv.DictReader(evidence):
            found.setdefault(line["group"], []).append(int(line["person_no"]))
    found = pairs(found)
    right = found & true
    print(f"{len(true)} doubles; {len(found)} pairs found, {len(right)} of them right: "
          f"precision {len(right) / max(1, len(found)):.4f}, recall {len(right) / len(true):.4f}")
    for kind in KINDS:
        of = pairs({p: rows for p, rows in person.items() if kinds.get(p) == kind})
        print(f"  {kind:28s} {len(of & found):6d} of {len(of)}")


if __name__ == "__main__":
    if len(sys.argv) == 6 and sys.argv[1] == "make":
        make(int(sys.argv[2]), int(sys.argv[3]), int(sys.argv[4]), sys.argv[5])
    elif len(sys.argv) == 4 and sys.argv[1] == "score":
        score(sys.argv[2], sys.argv[3])
    else:
        sys.exit(__doc__)
