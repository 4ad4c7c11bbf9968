"""Makes sets of tables whose keys and links are known, by rules unlike those of known_sets.py and unseen_sets.py, made last of all: after the
survey had been mended where the unseen sets showed it wrong. Nothing was mended for these. The same every time.

usage: later_sets.py FOLDER [DIRT]     as known_sets.py
"""
import random, string

import kit

r = random.Random(77)


def day(year=2023, span=700, form='%Y-%m-%d'):
    return kit.day(r, year, span, form)


def word(n=6):
    return kit.word(r, n)


def brewery(root, dirt):
    """Recipes in versions, tanks used from a moment on, amounts of everything."""
    recipes = [[f'RX{i:03d}', v, word(10), r.randrange(10, 60)] for i in range(1, 61) for v in range(1, r.randrange(2, 5))]
    tanks = [[i, r.choice([500, 1000, 2000]), word(6)] for i in range(1, 19)]
    brewers = [[i, word(6), word(8)] for i in range(1, 26)]
    batches = [[f'B{22000 + i}', *r.choice(recipes)[:2], r.randrange(1, 26), day(2022), r.randrange(100, 2000)] for i in range(420)]
    uses = sorted({(r.randrange(1, 19), f'{day(2022)} {r.randrange(6, 20):02d}:00') for _ in range(600)})
    uses = [[*u, r.choice(batches)[0], r.randrange(3, 30)] for u in uses]
    goods = [[i, word(8), r.choice(['malt', 'hops', 'yeast']), round(r.uniform(.5, 30), 2)] for i in range(301, 361)]
    used = sorted({(b[0], r.choice(goods)[0]) for b in batches for _ in range(3)})
    used = [[*u, round(r.uniform(.1, 90), 2)] for u in used]
    kit.write(root, 'brewery', {
        'Recipe': (['RecipeID', 'Version', 'Title', 'Bitterness'], recipes),
        'Tank': (['TankNo', 'Litres', 'Nickname'], tanks),
        'Brewer': (['BrewerID', 'GivenName', 'Surname'], brewers),
        'Batch': (['BatchID', 'RecipeID', 'RecipeVersion', 'BrewedBy', 'BrewedOn', 'Litres'], batches),
        'TankUse': (['TankNo', 'StartedAt', 'BatchID', 'Days'], uses),
        'Good': (['GoodID', 'Label', 'Kind', 'PriceKilo'], goods),
        'BatchGood': (['BatchID', 'GoodID', 'Kilos'], used),
    }, [['Recipe', ['RecipeID', 'Version']], ['Tank', ['TankNo']], ['Brewer', ['BrewerID']], ['Batch', ['BatchID']], ['TankUse', ['TankNo', 'StartedAt']],
        ['Good', ['GoodID']], ['BatchGood', ['BatchID', 'GoodID']]],
        [['Batch', ['RecipeID', 'RecipeVersion'], 'Recipe', ['RecipeID', 'Version']], ['Batch', ['BrewedBy'], 'Brewer', ['BrewerID']],
         ['TankUse', ['TankNo'], 'Tank', ['TankNo']], ['TankUse', ['BatchID'], 'Batch', ['BatchID']], ['BatchGood', ['BatchID'], 'Batch', ['BatchID']],
         ['BatchGood', ['GoodID'], 'Good', ['GoodID']]], [], dirt)


def ferrovia(root, dirt):
    """Italian; stations by a code, stretches from one to another, stops along a train, who answers to whom."""
    stations = sorted({''.join(r.choice(string.ascii_uppercase) for _ in range(3)) for _ in range(70)})
    stations = [[s, word(10), r.randrange(1, 12)] for s in stations]
    stretches = sorted({tuple(x[0] for x in r.sample(stations, 2)) for _ in range(200)})
    stretches = [[*s, r.randrange(4, 90)] for s in stretches]
    trains = [[f'{r.choice(["RV", "IC", "FR"])}{1000 + 3 * i}', r.choice(['R', 'I', 'F']), r.randrange(60, 300)] for i in range(130)]
    stops = [[t[0], n, s[0], f'{r.randrange(5, 23):02d}:{r.randrange(60):02d}'] for t in trains for n, s in enumerate(r.sample(stations, r.randrange(4, 12)), 1)]
    staff = [[i, word(6), word(8), r.randrange(700, i) if i > 703 else ''] for i in range(700, 860)]
    runs = [[i, r.choice(trains)[0], day(), r.choice(staff)[0], r.randrange(0, 50)] for i in range(1, 1401)]
    kit.write(root, 'ferrovia', {
        'stazioni': (['codice', 'nome', 'binari'], stations),
        'tratte': (['stazione_da', 'stazione_a', 'km'], stretches),
        'treni': (['numero_treno', 'categoria', 'posti'], trains),
        'fermate': (['numero_treno', 'progressivo', 'stazione', 'orario'], stops),
        'personale': (['matricola', 'nome', 'cognome', 'responsabile'], staff),
        'corse': (['id_corsa', 'numero_treno', 'data', 'macchinista', 'ritardo'], runs),
    }, [['stazioni', ['codice']], ['tratte', ['stazione_da', 'stazione_a']], ['treni', ['numero_treno']], ['fermate', ['numero_treno', 'progressivo']],
        ['personale', ['matricola']], ['corse', ['id_corsa']]],
        [['tratte', ['stazione_da'], 'stazioni', ['codice']], ['tratte', ['stazione_a'], 'stazioni', ['codice']],
         ['fermate', ['numero_treno'], 'treni', ['numero_treno']], ['fermate', ['stazione'], 'stazioni', ['codice']],
         ['personale', ['responsabile'], 'personale', ['matricola']], ['corse', ['numero_treno'], 'treni', ['numero_treno']],
         ['corse', ['macchinista'], 'personale', ['matricola']]], [], dirt)


def forum(root, dirt):
    """Tables that point at one another, posts under posts, counters beside what they count."""
    users = [[i, f'{word(6).lower()}{i}', day(2018, 1800)] for i in range(1, 401)]
    boards = [[i, word(8), r.randrange(1, i) if i > 3 and r.random() < .7 else ''] for i in range(1, 31)]
    threads = [[i, r.randrange(1, 31), r.randrange(1, 401), word(14), 0, 0] for i in range(1, 601)]
    posts = []
    of = {}
    for i in range(1, 4001):
        t = r.choice(threads)[0]
        earlier = of.setdefault(t, [])
        posts.append([i, t, r.randrange(1, 401), r.choice(earlier) if earlier and r.random() < .5 else '', word(30)])
        earlier.append(i)
    for t in threads:
        t[4] = max(of.get(t[0], ['']), default='')
        t[5] = len(of.get(t[0], []))
    votes = sorted({(r.randrange(1, 4001), r.randrange(1, 401)) for _ in range(3000)})
    votes = [[*v, r.choice([1, -1])] for v in votes]
    badges = [[b, word(10)] for b in ('early', 'helper', 'writer', 'critic', 'oldhand')]
    won = sorted({(r.randrange(1, 401), r.choice(badges)[0]) for _ in range(500)})
    won = [[*w, day(2020, 900)] for w in won]
    kit.write(root, 'forum', {
        'users': (['user_id', 'handle', 'joined_on'], users),
        'boards': (['board_id', 'title', 'parent_id'], boards),
        'threads': (['thread_id', 'board_id', 'author_id', 'subject', 'last_post_id', 'post_count'], threads),
        'posts': (['post_id', 'thread_id', 'author_id', 'reply_to', 'body'], posts),
        'votes': (['post_id', 'user_id', 'weight'], votes),
        'badges': (['badge', 'caption'], badges),
        'user_badges': (['user_id', 'badge', 'won_on'], won),
    }, [['users', ['user_id']], ['boards', ['board_id']], ['threads', ['thread_id']], ['posts', ['post_id']], ['votes', ['post_id', 'user_id']],
        ['badges', ['badge']], ['user_badges', ['user_id', 'badge']]],
        [['boards', ['parent_id'], 'boards', ['board_id']], ['threads', ['board_id'], 'boards', ['board_id']], ['threads', ['author_id'], 'users', ['user_id']],
         ['threads', ['last_post_id'], 'posts', ['post_id']], ['posts', ['thread_id'], 'threads', ['thread_id']], ['posts', ['author_id'], 'users', ['user_id']],
         ['posts', ['reply_to'], 'posts', ['post_id']], ['votes', ['post_id'], 'posts', ['post_id']], ['votes', ['user_id'], 'users', ['user_id']],
         ['user_badges', ['user_id'], 'users', ['user_id']], ['user_badges', ['badge'], 'badges', ['badge']]], [], dirt)


def laboratory(root, dirt):
    """Barcodes, wells of plates, who made and who changed a row by login, results of three columns."""
    staff = [[f'{word(4).lower()}{i:02d}', word(6) + ' ' + word(8)] for i in range(30)]
    login = lambda: r.choice(staff)[0]
    plates = [[f'P{r.randrange(10**6):06d}-{i % 10}', r.choice([96, 48]), login(), day(2023)] for i in range(60)]
    plates = list({p[0]: p for p in plates}.values())
    wells = [[p[0], f'{row}{n:02d}', '' if r.random() < .05 else round(r.uniform(1, 9), 3)] for p in plates for row in 'ABCDEF' for n in range(1, 9)]
    samples = [[f'S{r.randrange(10**8):08d}', r.choice(['blood', 'soil', 'water']), login(), login()] for _ in range(500)]
    samples = list({s[0]: s for s in samples}.values())
    assays = [[a, word(12), r.randrange(5, 90)] for a in ('ELISA1', 'PCRQ02', 'PHOTO7', 'TITR10', 'SPEC33')]
    loads = [[*w[:2], r.choice(samples)[0]] for w in wells if r.random() < .6]
    results = sorted({(*r.choice(loads)[:2], r.choice(assays)[0]) for _ in range(2000)})
    results = [[*x, round(r.uniform(0, 3), 4), login()] for x in results]
    kit.write(root, 'laboratory', {
        'staff': (['login', 'full_name'], staff),
        'plate': (['barcode', 'wells', 'made_by', 'made_on'], plates),
        'well': (['plate_barcode', 'position', 'volume'], wells),
        'sample': (['sample_code', 'matrix', 'created_by', 'changed_by'], samples),
        'assay': (['assay_code', 'title', 'minutes'], assays),
        'well_load': (['plate_barcode', 'position', 'sample_code'], loads),
        'result': (['plate_barcode', 'position', 'assay_code', 'reading', 'read_by'], results),
    }, [['staff', ['login']], ['plate', ['barcode']], ['well', ['plate_barcode', 'position']], ['sample', ['sample_code']], ['assay', ['assay_code']],
        ['well_load', ['plate_barcode', 'position']], ['result', ['plate_barcode', 'position', 'assay_code']]],
        [['plate', ['made_by'], 'staff', ['login']], ['well', ['plate_barcode'], 'plate', ['barcode']], ['sample', ['created_by'], 'staff', ['login']],
         ['sample', ['changed_by'], 'staff', ['login']], ['well_load', ['plate_barcode', 'position'], 'well', ['plate_barcode', 'position']],
         ['well_load', ['sample_code'], 'sample', ['sample_code']],
         ['result', ['plate_barcode', 'position'], 'well_load', ['plate_barcode', 'position']],
         ['result', ['assay_code'], 'assay', ['assay_code']], ['result', ['read_by'], 'staff', ['login']]],
        [['result', ['plate_barcode', 'position'], 'well', ['plate_barcode', 'position']], ['result', ['plate_barcode'], 'plate', ['barcode']],
         ['well_load', ['plate_barcode'], 'plate', ['barcode']]], dirt)


def schule(root, dirt):
    """German compounds, classes and subjects by short texts, marks by pupil, subject and day."""
    faecher = [[f, word(8)] for f in ('MA', 'DE', 'EN', 'BIO', 'PH', 'CH', 'GE', 'SPO', 'KU', 'MU')]
    lehrer = sorted({''.join(r.choice('BCDFGHKLMNRST') for _ in range(3)) for _ in range(45)})
    lehrer = [[k, word(6), word(8)] for k in lehrer]
    klassen = [[f'{j}{b}', r.choice(lehrer)[0], r.randrange(100, 140)] for j in range(5, 13) for b in 'abc']
    schueler = [[4000 + i, word(6), word(8), r.choice(klassen)[0], day(2006, 3000)] for i in range(560)]
    unterricht = sorted({(k[0], r.choice(faecher)[0]) for k in klassen for _ in range(7)})
    unterricht = [[*u, r.choice(lehrer)[0], r.randrange(1, 6)] for u in unterricht]
    noten = sorted({(r.choice(schueler)[0], r.choice(faecher)[0], day(2023, 300)) for _ in range(3000)})
    noten = [[*n, r.randrange(1, 7)] for n in noten]
    eltern = [[s[0], n, word(6), f'0{r.randrange(10**9):09d}'] for s in schueler for n in range(1, r.randrange(2, 4))]
    kit.write(root, 'schule', {
        'Fach': (['FachKuerzel', 'Bezeichnung'], faecher),
        'Lehrer': (['LehrerKuerzel', 'Vorname', 'Nachname'], lehrer),
        'Klasse': (['KlassenName', 'Klassenlehrer', 'Raum'], klassen),
        'Schueler': (['SchuelerNr', 'Vorname', 'Nachname', 'KlassenName', 'Geburtstag'], schueler),
        'Unterricht': (['KlassenName', 'FachKuerzel', 'LehrerKuerzel', 'Wochenstunden'], unterricht),
        'Note': (['SchuelerNr', 'FachKuerzel', 'Datum', 'Wert'], noten),
        'Elternteil': (['SchuelerNr', 'LfdNr', 'Vorname', 'Telefon'], eltern),
    }, [['Fach', ['FachKuerzel']], ['Lehrer', ['LehrerKuerzel']], ['Klasse', ['KlassenName']], ['Schueler', ['SchuelerNr']],
        ['Unterricht', ['KlassenName', 'FachKuerzel']], ['Note', ['SchuelerNr', 'FachKuerzel', 'Datum']], ['Elternteil', ['SchuelerNr', 'LfdNr']]],
        [['Klasse', ['Klassenlehrer'], 'Lehrer', ['LehrerKuerzel']], ['Schueler', ['KlassenName'], 'Klasse', ['KlassenName']],
         ['Unterricht', ['KlassenName'], 'Klasse', ['KlassenName']], ['Unterricht', ['FachKuerzel'], 'Fach', ['FachKuerzel']],
         ['Unterricht', ['LehrerKuerzel'], 'Lehrer', ['LehrerKuerzel']], ['Note', ['SchuelerNr'], 'Schueler', ['SchuelerNr']],
         ['Note', ['FachKuerzel'], 'Fach', ['FachKuerzel']], ['Elternteil', ['SchuelerNr'], 'Schueler', ['SchuelerNr']]], [], dirt)


def sparse(root, dirt):
    """Forty-five tables; keys drawn from six digits, named behind a mark for what they are."""
    tables, keys, links = {}, [], []
    names = []
    while len(names) < 30:
        w = word(6).lower()
        if w not in names:
            names.append(w)
    ids = r.sample(range(100000, 999999), 30000)
    own = {}
    for n in names:
        own[n] = [ids.pop() for _ in range(r.randrange(30, 500))]
        above = r.sample([m for m in names if m in own and m != n] or [n], min(2, max(1, len(own) - 1))) if len(own) > 3 else []
        header = ['pk_' + n, 'caption', 'seen_on'] + ['fk_' + a for a in above]
        tables['tbl_' + n] = (header, [[i, word(10), day()] + [r.choice(own[a]) for a in above] for i in own[n]])
        keys.append(['tbl_' + n, ['pk_' + n]])
        links += [['tbl_' + n, ['fk_' + a], 'tbl_' + a, ['pk_' + a]] for a in above]
    for x in range(15):
        a, b = r.sample(names, 2)
        name = f'tbl_{a}_{b}'
        rows = sorted({(r.choice(own[a]), r.choice(own[b])) for _ in range(500)})
        tables[name] = (['fk_' + a, 'fk_' + b, 'rank'], [[*p, r.randrange(1, 30)] for p in rows])
        keys.append([name, ['fk_' + a, 'fk_' + b]])
        links += [[name, ['fk_' + a], 'tbl_' + a, ['pk_' + a]], [name, ['fk_' + b], 'tbl_' + b, ['pk_' + b]]]
    kit.write(root, 'sparse', tables, keys, links, [], dirt)


if __name__ == '__main__':
    kit.main((brewery, ferrovia, forum, laboratory, schule, sparse), __doc__)
