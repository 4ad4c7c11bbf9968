"""Runs `survey` on sets of tables whose keys and links are known and prints precision, recall and F1 of what it drafts: once with
the names as they are, once with all names of tables and columns scrambled. `listed` is the share of the true links that the result holds at all,
drafted or not. Each draft is vetted, and its tables are checked by it: findings are printed.

usage: score.py [-v] [--no-draft] PROGRAM FOLDER...     each folder holds CSV files and truth.json; -v names what was missed and what was wrong

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
    ends = lambda l: (l['child'], tuple(sorted(zip(l['columns'], l['parent_columns']))), l['parent'])
    return keys, {ends(l) for l in result['links'] if l['chosen']}, {ends(l) for l in result['links']}


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
    listed, true = total['listed']
    print(f'{name:24}', *(f'{x:6.2f}' for kind in ('keys', 'links') for x in figures(*total[kind])), f'{listed / true:8.2f}', flush=True)


def drafted(program, folder):
    """What the checks say about the draft of a folder, by itself: findings of vet, and of check by kind and place."""
    charter = os.path.join(tempfile.mkdtemp(), 'charter.yaml')
    tables = [os.path.join(folder, f) for f in sorted(os.listdir(folder)) if f.endswith('.csv')]
    made = subprocess.run([program, 'survey', *tables, '--quiet', '--write-charter', charter], capture_output=True, text=True)
    if made.returncode:
        raise SystemExit(made.stderr)
    said = []
    for command in ('vet', 'check'):
        out = subprocess.run([program, command, charter, '--json'], capture_output=True, text=True)
        if not out.stdout:
            raise SystemExit(f'{command} {folder}: {out.stderr}')
        for f in json.loads(out.stdout)['findings']:
            at = '.'.join(str(f[k]) for k in ('table', 'at') if f.get(k))
            said.append(f"{command}: {f.get('finding') or f.get('kind')} {f.get('severity', '')} at {at}, {f.get('rows', '')} rows")
    return said


def run(program, folders, scramble, verbose, drafts):
    total = {'keys': [0, 0, 0], 'links': [0, 0, 0], 'listed': [0, 0]}
    for folder in folders:
        truth = json.load(open(os.path.join(folder, 'truth.json')))
        back = {}
        place = folder
        if scramble:
            place = tempfile.mkdtemp()
            truth, back = scrambled(folder, place, truth)
        keys, links, listed = proposed(survey(program, place))
        true_keys, true_links, implied = wanted(truth)
        links -= implied
        if scramble:
            shutil.rmtree(place)
        own = {'keys': [len(keys & true_keys), len(keys), len(true_keys)], 'links': [len(links & true_links), len(links), len(true_links)],
               'listed': [len(listed & true_links), len(true_links)]}
        show(os.path.basename(folder.rstrip('/')), own)
        for kind in total:
            total[kind] = [a + b for a, b in zip(total[kind], own[kind])]
        if verbose:
            plain = lambda x: ' '.join(back.get(w.strip("'(),"), w.strip("'(),")) for w in str(x).split())
            for what, some in (('missed', true_keys - keys), ('listed', (true_links & listed) - links), ('not listed', true_links - listed), ('wrong', (keys - true_keys) | (links - true_links))):
                for x in sorted(some, key=str):
                    print('   ', what, plain(x))
        if drafts and not scramble:
            for line in drafted(program, folder):
                print('   ', line)
    show('all', total)


if __name__ == '__main__':
    options = {a for a in sys.argv[1:] if a.startswith('-')}
    program, *folders = (a for a in sys.argv[1:] if not a.startswith('-'))
    for scramble in (False, True):
        print(f"{'scrambled' if scramble else 'as named':24}   keys: P      R     F1  links: P      R     F1  listed")
        run(program, folders, scramble, '-v' in options, '--no-draft' not in options)
