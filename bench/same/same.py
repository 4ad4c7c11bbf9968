#!/usr/bin/env python3
"""Whether two builds print and write the same, byte for byte: every command on the demo data, then on damaged copies of it.

usage: same.py [--cases N] [--seed S] BEFORE AFTER     two programs (cli/target/dist/bin/taxiomet of two builds)

Each command runs in a copy of the demo of its own, with one clock (--now where a moment matters). Compared are standard output, standard error,
the exit status and every file that was written. The moment and the version in JSON documents are left out. Cases with a number have random
damage in tables, charter or proposals: bytes changed, cut off, doubled, fields emptied. Ends with status 1 when anything differs.
"""
import argparse, gzip, os, random, re, shutil, subprocess, sys, tempfile

HERE = os.path.dirname(os.path.abspath(__file__))
DEMO = os.path.join(HERE, '..', '..', 'demo')
NOW = ['--now', '2026-05-01T12:00:00Z']
LEAVES, CLOSES = 'proposals/keeper-leaves.sql', 'proposals/apiary-closes.sql'
MERGE, RENUMBER = 'proposals/one-person-twice.yaml', 'proposals/code-renumbered.yaml'
CASCADES = [w for link in ('hive_apiary', 'harvest_hive', 'transfer_from', 'transfer_to', 'visit_keeper', 'payout_keeper')
            for w in ('--try', link + '.on_delete=cascade')]
COMMANDS = [
    ['check'], ['check', '--json'], ['check', '--examples', '50', '--threads', '1'], ['check', '--memory', '4k', '--json'],
    ['check', '--evidence', 'out', '--report', 'all.csv', '--report', 'all.json'], ['check', '--evidence', 'out', '--per-owner'],
    ['check', '--only', 'hive'], ['check', '--only', 'visit_treatment', '--json'], ['check', '--quiet', '--color', 'always'],
    ['vet', '--around', 'hive'], ['vet', '--json'], ['vet', '--server', 'sqlserver'], ['vet', '--server', 'mariadb', '--json'],
    ['vet', '--server', 'oracle'], ['vet', '--server', 'postgresql'], ['vet', '--server', 'sqlite'], ['vet', '--write-charter', 'again.yaml'],
    ['survey', '.', '--json'], ['survey', '.'], ['survey', '.', '--write-charter', 'first.yaml'],
    ['survey', '.', '--key', 'hives=label', '--link', 'hives.apiary_id=apiaries.apiary_id', '--json'],
    ['meaning'], ['help', 'rehearse'], ['help'],
] + [['rehearse', what, '--json'] + NOW + ['--server', server]
     for what in (LEAVES, CLOSES, MERGE, RENUMBER) for server in ('standard', 'postgresql', 'sqlite', 'mariadb')] + [
    ['rehearse', CLOSES, '--into', 'new', '--report', 'effects.csv', '--write-sql', 'change.sql'] + NOW,
    ['rehearse', MERGE, '--into', 'new', '--whole', '--write-sql', 'mariadb:change.sql'] + NOW,
    ['rehearse', RENUMBER, '--write-sql', 'sqlite:change.sql', '--server', 'sqlite'] + NOW,
    ['rehearse', LEAVES] + CASCADES + NOW, ['rehearse', LEAVES, '--compare-actions', 'apiary_keeper'] + CASCADES + NOW,
    ['rehearse', LEAVES] + CASCADES + NOW + ['--why', 'harvest', '195'], ['rehearse', LEAVES, '--deferred=all', '--all-or-nothing'] + NOW,
    ['rehearse', '--delete', 'hive=proposals/gone-hives.csv'] + NOW,
]
ON_DAMAGE = [
    ['check', '--json'], ['check', '--evidence', 'out'], ['vet'], ['survey', '.', '--json'],
    ['rehearse', CLOSES, MERGE, RENUMBER, LEAVES, '--report', 'effects.csv'] + CASCADES + NOW,
]
VARIES = re.compile(rb'"(made|program)" ?: ?"[^"]*"')


def damage(folder, rng):
    names = [n for n in os.listdir(folder) if n.endswith(('.csv', '.gz', '.yaml'))] + [MERGE, CLOSES]
    for name in rng.sample(names, rng.randint(1, 4)):
        path = os.path.join(folder, name)
        packed = name.endswith('.gz')
        data = bytearray((gzip.open(path) if packed else open(path, 'rb')).read())
        for _ in range(rng.randint(1, 6)):
            at = rng.randrange(max(1, len(data)))
            how = rng.randrange(6)
            if how == 0:
                data[at:at + 1] = bytes([rng.choice(b'",;\n\r\0 0179aZ\xff\xc3-.')])
            elif how == 1:
                data[at:at + rng.randint(1, 12)] = b''
            elif how == 2:
                end = data.find(b'\n', at)
                line = data[at:end + 1] if end > 0 else b''
                data[at:at] = line
            elif how == 3:
                start, end = data.rfind(b',', 0, at), data.find(b',', at)
                if 0 < start < end:
                    data[start + 1:end] = b''
            elif how == 4:
                data[at:at] = bytes(rng.choice([b'"', b'NULL', b'999999999999', b'  ', b'\xef\xbb\xbf', b'1e3', b"'"]))
            elif rng.random() < 0.2:
                del data[at:]
        with (gzip.GzipFile(path, 'wb', mtime=0) if packed else open(path, 'wb')) as out:
            out.write(bytes(data))


def run(program, arguments, folder):
    before = {os.path.join(d, f) for d, _, fs in os.walk(folder) for f in fs}
    environment = dict(os.environ, COLUMNS='100')
    done = subprocess.run([program] + arguments, cwd=folder, stdin=subprocess.DEVNULL, capture_output=True, timeout=300, env=environment)
    came = {'status': str(done.returncode).encode(), 'standard output': done.stdout, 'standard error': done.stderr}
    for d, _, files in os.walk(folder):
        for f in files:
            path = os.path.join(d, f)
            if path not in before:
                came['file ' + os.path.relpath(path, folder)] = open(path, 'rb').read()
    return {name: VARIES.sub(b'', text) for name, text in came.items()}


def compare(programs, arguments, make):
    came = []
    for program in programs:
        with tempfile.TemporaryDirectory() as scratch:
            folder = os.path.join(scratch, 'demo')
            make(folder)
            came.append({n: t.replace(scratch.encode(), b'') for n, t in run(program, arguments, folder).items()})
    return [name for name in sorted(came[0].keys() | came[1].keys()) if came[0].get(name) != came[1].get(name)], came


def shown(text):
    return '(none)' if text is None else text[:400].decode('utf-8', 'replace')


def main():
    parser = argparse.ArgumentParser()
    parser.add_argument('--cases', type=int, default=40)
    parser.add_argument('--seed', type=int, default=1)
    parser.add_argument('--show', action='store_true', help='print the first differing lines')
    parser.add_argument('before')
    parser.add_argument('after')
    given = parser.parse_args()
    programs = [os.path.abspath(given.before), os.path.abspath(given.after)]
    jobs = [(arguments, None) for arguments in COMMANDS]
    jobs += [(ON_DAMAGE[i % len(ON_DAMAGE)], given.seed + i) for i in range(given.cases)]
    differing = 0
    for arguments, seed in jobs:
        def make(folder):
            shutil.copytree(DEMO, folder)
            if seed is not None:
                damage(folder, random.Random(seed))
        names, came = compare(programs, arguments, make)
        if names:
            differing += 1
            print(('case %s: ' % seed if seed is not None else '') + 'taxiomet ' + ' '.join(arguments) + ': ' + ', '.join(names))
            if given.show:
                for name in names[:2]:
                    one, other = [(c.get(name) or b'').split(b'\n') for c in came]
                    for a, b in zip(one + [b''] * len(other), other + [b''] * len(one)):
                        if a != b:
                            print('    -', shown(a), '\n    +', shown(b))
                            break
    print('%d runs compared, %d differ' % (len(jobs), differing))
    sys.exit(1 if differing else 0)


main()
