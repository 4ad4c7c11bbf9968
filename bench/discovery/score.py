"""Runs `survey` on sets of tables whose keys and links are known and prints precision, recall and F1 of what it drafts: once with
the names as they are, once with all names of tables and columns scrambled.

usage: score.py PROGRAM FOLDER...     each folder holds CSV files and truth.json

Links in truth.json under "implied" follow from others: proposing one is neither right nor wrong.
"""
import csv, json, os, random, shutil, subprocess, sys, tempfile


def survey(program, folder):
    out = subprocess.run([program, 'survey', folder, '--json'], capture_output=True, text=True)
    if out.returncode:
        raise SystemExit(out.stderr)
    return json.loads(out.stdout)


def proposed(result):
    keys = {(k['table'], tuple(sorted(k['columns']))) for k in result['keys'] if k['chosen']}
    links = {(l['child'], tuple(sorted(zip(l['columns'], l['parent_columns']))), l['parent']) for l in result['links'] if l['chosen']}
    return keys, links


def wanted(truth):
    keys = {(t, tuple(sorted(c))) for t, c in truth['keys']}
    link = lambda c, cc, p, pc: (c, tuple(sorted(zip(cc, pc))), p)
    return keys, {link(*l) for l in truth['links']}, {link(*l) for l in truth.get('implied', [])}


def scrambled(folder, to, truth):
    r = random.Random(len(folder) * 7919)
    tables = sorted({t for t, _ in truth['keys']})
    columns, names = {}, {}
    made = set()

    def fresh():
        while True:
            name = ''.join(r.choice('qwxzkvj') for _ in range(6))
            if name not in made:
                made.add(name)
                return name
    for file in sorted(os.listdir(folder)):
        if not file.endswith('.csv'):
            continue
        table = file[:-4]
        names[table] = fresh()
        with open(os.path.join(folder, file), newline='') as f:
            header = next(csv.reader(f))
            for c in header:
                columns[table, c] = fresh()
            rest = f.read()
        with open(os.path.join(to, names[table] + '.csv'), 'w', newline='') as f:
            f.write(','.join(columns[table, c] for c in header) + '\n' + rest)
    rename = lambda t, cs: [columns[t, c] for c in cs]
    return {'keys': [[names[t], rename(t, c)] for t, c in truth['keys']],
            'links': [[names[c], rename(c, cc), names[p], rename(p, pc)] for c, cc, p, pc in truth['links']],
            'implied': [[names[c], rename(c, cc), names[p], rename(p, pc)] for c, cc, p, pc in truth.get('implied', [])]}, \
        {v: k for k, v in names.items()} | {v: k[1] for k, v in columns.items()}


def figures(right, said, true):
    precision = right / said if said else 1
    recall = right / true if true else 1
    return precision, recall, 2 * precision * recall / (precision + recall) if right else 0


def show(name, total):
    print(f'{name:24}', *(f'{x:6.2f}' for kind in ('keys', 'links') for x in figures(*total[kind])))


def run(program, folders, scramble, verbose):
    total = {'keys': [0, 0, 0], 'links': [0, 0, 0]}
    for folder in folders:
        truth = json.load(open(os.path.join(folder, 'truth.json')))
        back = {}
        place = folder
        if scramble:
            place = tempfile.mkdtemp()
            truth, back = scrambled(folder, place, truth)
        keys, links = proposed(survey(program, place))
        true_keys, true_links, implied = wanted(truth)
        links -= implied
        if scramble:
            shutil.rmtree(place)
        own = {'keys': [len(keys & true_keys), len(keys), len(true_keys)], 'links': [len(links & true_links), len(links), len(true_links)]}
        show(os.path.basename(folder.rstrip('/')), own)
        for kind in total:
            total[kind] = [a + b for a, b in zip(total[kind], own[kind])]
        if verbose:
            plain = lambda x: ' '.join(back.get(w.strip("'(),"), w.strip("'(),")) for w in str(x).split())
            for what, some in (('missed', (true_keys - keys) | (true_links - links)), ('wrong', (keys - true_keys) | (links - true_links))):
                for x in sorted(some, key=str):
                    print('   ', what, plain(x))
    show('all', total)


if __name__ == '__main__':
    verbose = '-v' in sys.argv
    arguments = [a for a in sys.argv[1:] if a != '-v']
    for scramble in (False, True):
        print(f"{'scrambled' if scramble else 'as named':24}   keys: P      R     F1  links: P      R     F1")
        run(arguments[0], arguments[1:], scramble, verbose)
