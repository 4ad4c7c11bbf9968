"""How often the hint of `check` names the parent that the writer meant: made-up keys of eight kinds, written with twelve kinds of slips.

usage: score.py PROGRAM [PROGRAM ...]     several are measured on the same tables

Each slip leaves a key that no parent has, so that it is an orphan. "nearest" are the orphans of which one parent alone is nearest by
edit distance (turned neighbours count once) once case, marks, padding zeros and characters that look alike are left out; among dense
codes there is often none, and then no rule could tell which was meant.
"""
import csv, json, os, random, subprocess, sys, tempfile

ALIKE = {'0': 'O', 'O': '0', '1': 'l', 'l': '1', 'I': '1', 'i': '1', '5': 'S', 'S': '5', 's': '5', '8': 'B', 'B': '8', 'o': '0'}
VOWELS, CONSONANTS = 'aeiou', 'bcdfghjklmnprstvwz'


def word(rng, least, most):
    letters = [rng.choice(CONSONANTS if i % 2 == 0 else VOWELS) for i in range(rng.randint(least, most))]
    return ''.join(letters)


def kinds(rng):
    def many(count, make):
        keys = set()
        while len(keys) < count:
            keys.add(make())
        return sorted(keys)
    hexes = '0123456789abcdef'
    return {
        'numbers, sparse': many(400, lambda: str(rng.randint(10 ** 7, 10 ** 8))),
        'numbers, dense': [str(n) for n in range(1, 401)],
        'codes of three': many(150, lambda: rng.choice('ABCDEFGHJKLMNPQRSTUVWXYZ') + '%02d' % rng.randint(0, 99)),
        'codes, dense': ['H-%03d' % n for n in range(1, 401)],
        'short words': many(300, lambda: word(rng, 3, 5).upper()),
        'names': many(400, lambda: word(rng, 6, 12).capitalize()),
        'plates': many(400, lambda: ''.join(rng.choice('ABCDEFGHJKLMNPRSTUVWXYZ') for _ in range(2)) + '-%02d-' % rng.randint(0, 99)
                       + ''.join(rng.choice('ABCDEFGHJKLMNPRSTUVWXYZ') for _ in range(3))),
        'fingerprints': many(400, lambda: ''.join(rng.choice(hexes) for _ in range(12))),
    }


def slips(rng):
    def at(key, change):
        place = rng.randrange(len(key))
        return change(key, place)
    def alike(key):
        places = [i for i, c in enumerate(key) if c in ALIKE]
        if not places:
            return key
        i = rng.choice(places)
        return key[:i] + ALIKE[key[i]] + key[i + 1:]
    def digits(key):
        return next((i for i, c in enumerate(key) if c.isdigit() and (i == 0 or not key[i - 1].isdigit())), None)
    def unpadded(key):
        i = digits(key)
        return key if i is None or key[i] != '0' or not key[i + 1:i + 2].isdigit() else key[:i] + key[i + 1:]
    def padded(key):
        i = digits(key)
        return key if i is None else key[:i] + '0' + key[i:]
    def other(key, i):
        c = key[i]
        pool = '0123456789' if c.isdigit() else VOWELS + CONSONANTS
        new = rng.choice([p for p in pool if p != c.lower()])
        return key[:i] + (new.upper() if c.isupper() else new) + key[i + 1:]
    return {
        'blank at an end': lambda key: key + ' ' if rng.random() < .5 else ' ' + key,
        'other case': lambda key: key.swapcase(),
        'zero left out': unpadded,
        'zero too many': padded,
        'looks alike': alike,
        'mark left out': lambda key: key.replace('-', ''),
        'other mark': lambda key: key.replace('-', rng.choice(' /._')) if '-' in key else key[:1] + '-' + key[1:],
        'mark behind': lambda key: key + rng.choice(',.;)'),
        'one left out': lambda key: at(key, lambda k, i: k[:i] + k[i + 1:]),
        'one doubled': lambda key: at(key, lambda k, i: k[:i + 1] + k[i:]),
        'two turned': lambda key: key if len(key) < 2 else at(key[:-1], lambda k, i: key[:i] + key[i + 1] + key[i] + key[i + 2:]),
        'one replaced': lambda key: at(key, other),
    }


def bones(key):
    left = ''
    for c in key.lower():
        c = {'o': '0', 'i': '1', 'l': '1', 's': '5', 'b': '8'}.get(c, c)
        if c.isalnum():
            left += c
    out = ''
    for i, c in enumerate(left):
        before = left[i - 1] if i else ''
        if c == '0' and not out[-1:].isdigit() and left[i + 1:i + 2].isdigit():
            continue
        out += c
    return out


def distance(a, b):
    rows = [list(range(len(b) + 1))]
    for i in range(1, len(a) + 1):
        row = [i]
        for j in range(1, len(b) + 1):
            best = min(rows[-1][j] + 1, row[-1] + 1, rows[-1][j - 1] + (a[i - 1] != b[j - 1]))
            if i > 1 and j > 1 and a[i - 1] == b[j - 2] and a[i - 2] == b[j - 1]:
                best = min(best, rows[-2][j - 2] + 1)
            row.append(best)
        rows.append(row)
    return rows[-1][-1]


def is_nearest(slip, meant, parents):
    mine = bones(slip)
    own = distance(mine, bones(meant))
    return all(abs(len(mine) - len(bones(p))) > own or distance(mine, bones(p)) > own for p in parents if p != meant)


def named(program, folder):
    out = subprocess.run([program, 'check', '--json', '--examples', '100000'], cwd=folder, capture_output=True, text=True)
    if out.returncode > 1:
        raise SystemExit(out.stderr)
    found = {}
    for finding in json.loads(out.stdout)['findings']:
        for row in finding['examples']:
            hint = row.get('hint', {})
            parents = [next(iter(p.values())) if isinstance(p, dict) else p[0] for p in hint['parents']] if 'parents' in hint else [hint['parent']] if 'parent' in hint else []
            found[row['row']] = parents
    return found


def main(programs):
    rng = random.Random(20261128)
    totals = {program: {True: [0, 0, 0], False: [0, 0, 0]} for program in programs}
    print('%-18s %-10s %6s' % ('keys', 'nearest', 'slips'), *['%12s %12s' % ('in three', 'first')] * len(programs))
    for kind, parents in kinds(rng).items():
        asked = []
        taken = set(parents)
        for name, slip in slips(rng).items():
            for _ in range(60):
                meant = rng.choice(parents)
                written = slip(meant)
                if written and written not in taken:
                    asked.append((name, written, meant, is_nearest(written, meant, parents)))
        with tempfile.TemporaryDirectory() as folder:
            with open(os.path.join(folder, 'p.csv'), 'w', newline='') as out:
                csv.writer(out, quoting=csv.QUOTE_ALL).writerows([['k']] + [[p] for p in parents])
            with open(os.path.join(folder, 'c.csv'), 'w', newline='') as out:
                csv.writer(out, quoting=csv.QUOTE_ALL).writerows([['x']] + [[a[1]] for a in asked])
            with open(os.path.join(folder, 'charter.yaml'), 'w') as out:
                out.write('charter: 1\ntables:\n  p: {rows: p.csv, columns: {k: text}, primary_key: k}\n'
                          '  c: {rows: c.csv, columns: {x: text}, foreign_keys: {l: {columns: x, references: p}}}\n')
            results = [named(program, folder) for program in programs]
        for nearest in (True, False):
            of = [(i + 1, a) for i, a in enumerate(asked) if a[3] == nearest]
            cells = []
            for program, found in zip(programs, results):
                three = sum(a[2] in found.get(row, []) for row, a in of)
                first = sum(found.get(row, [])[:1] == [a[2]] for row, a in of)
                totals[program][nearest][0] += len(of)
                totals[program][nearest][1] += three
                totals[program][nearest][2] += first
                cells += ['%11.1f%% %11.1f%%' % (100 * three / len(of), 100 * first / len(of))] if of else ['%12s %12s' % ('', '')]
            if of:
                print('%-18s %-10s %6d' % (kind, 'one' if nearest else 'several', len(of)), *cells)
            if os.environ.get('MISSED') and nearest:
                for row, a in of:
                    if a[2] not in results[-1].get(row, []):
                        print('   missed', a[:3], results[-1].get(row))
    for nearest in (True, False):
        cells = ['%11.1f%% %11.1f%%' % tuple(100 * n / totals[p][nearest][0] for n in totals[p][nearest][1:]) for p in programs]
        print('%-18s %-10s %6d' % ('all', 'one' if nearest else 'several', totals[programs[0]][nearest][0]), *cells)


main([os.path.abspath(program) for program in sys.argv[1:]])
