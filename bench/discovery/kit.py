"""What the makers of sets of tables share: words, days, dirt, and a folder with CSV files and truth.json for each set."""
import csv, datetime, json, os, random, sys

STRAY = 7919
MANY = 100_000


def day(r, year=2023, span=700, form='%Y-%m-%d'):
    return (datetime.date(year, 1, 1) + datetime.timedelta(days=r.randrange(span))).strftime(form)


def word(r, n=6):
    return ''.join(r.choice('bcdfghlmnprstv') + r.choice('aeiou') for _ in range(n // 2)).capitalize()


def stray(r, cell, greatest):
    """A value that looks like the others of a column and that no parent has."""
    if cell.lstrip('-').isdigit() and not cell.startswith('0'):
        return str(greatest + STRAY + r.randrange(9 * max(9, greatest) + MANY))
    return ''.join(r.choice('QXZ') if c.isalpha() else r.choice('0123456789') if c.isdigit() else c for c in cell) + r.choice('QXZ')


def spoil(tables, links, share, r):
    """Gives a share of the rows of each link's child a value without a parent, in one of its columns; single rows of parents come twice."""
    for child, columns, parent, key in links:
        header, rows = tables[child]
        parents = {tuple(row[tables[parent][0].index(c)] for c in key) for row in tables[parent][1]}
        place = header.index(columns[-1])
        numbers = [int(row[place]) for row in rows if row[place].lstrip('-').isdigit()]
        greatest = max(numbers, default=0)
        for row in r.sample(rows, round(share * len(rows))):
            if row[place] != '':
                row[place] = stray(r, row[place], greatest)
    for parent in sorted({link[2] for link in links}):
        rows = tables[parent][1]
        if len(rows) > 15:
            rows.append(list(r.choice(rows)))


def write(root, name, tables, keys, links, implied=(), dirt=0.0):
    """
    :param tables: name -> (header, rows)
    :param keys: (table, columns)
    :param links: (child, columns, parent, its columns)
    :param implied: links that follow from others: proposing one is neither right nor wrong
    :param dirt: the share of the children's rows that get a value without a parent
    """
    folder = os.path.join(root, name)
    os.makedirs(folder, exist_ok=True)
    tables = {t: (header, [[str(cell) for cell in row] for row in rows]) for t, (header, rows) in tables.items()}
    if dirt:
        spoil(tables, links, dirt, random.Random(name))
    for table, (header, rows) in tables.items():
        with open(os.path.join(folder, table + '.csv'), 'w', newline='', encoding='utf-8') as f:
            w = csv.writer(f, lineterminator='\n')
            w.writerow(header)
            w.writerows(rows)
    with open(os.path.join(folder, 'truth.json'), 'w') as f:
        json.dump({'keys': keys, 'links': links, 'implied': list(implied)}, f, indent=1)


def main(makers, usage):
    if len(sys.argv) < 2:
        raise SystemExit(usage)
    dirt = float(sys.argv[2]) if len(sys.argv) > 2 else 0.0
    for make in makers:
        make(sys.argv[1], dirt)
