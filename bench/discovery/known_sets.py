"""Makes sets of tables whose keys and links are known, with traps: composite keys and links, links of a table to itself, two
links to one parent, linking tables, codes, one to one, id ranges that overlap, summary tables, copied attributes, columns named for a
role, sparse ids, dates as numbers. The weights of the survey were chosen with these sets at hand. The same every time.

usage: known_sets.py FOLDER [DIRT]     each set gets a folder with CSV files and truth.json; DIRT is the share of the children's rows
                                       that get a value without a parent
"""
import random, string

import kit

r = random.Random(2026)


def day(year=2023, span=700, form='%Y-%m-%d'):
    return kit.day(r, year, span, form)


def word(n=6):
    return kit.word(r, n)


def seeds(root, dirt):
    members = [[i, word(8), word(6), f'm{r.randrange(10**6):06d}@vale.example', day(2015)] for i in range(1, 301)]
    varieties = []
    codes = []
    for i in range(120):
        code = ''.join(r.choice(string.ascii_uppercase) for _ in range(3)) + f'{r.randrange(100):02d}'
        if code in codes:
            continue
        varieties.append([code, word(10), r.choice(codes) if codes and r.random() < .7 else '', r.randrange(30, 120)])
        codes.append(code)
    parcels = [[m[0], s, r.randrange(1, 60), r.choice('ABC')] for m in members for s in (2022, 2023, 2024) if r.random() < .8]
    swaps = [[i, *r.sample(range(1, 301), 2), day(), r.randrange(1, 6)] for i in range(1, 1201)]
    items = []
    for s in swaps:
        for c in r.sample(codes, r.randrange(1, 4)):
            p = r.choice(parcels)
            items.append([s[0], c, r.randrange(5, 500), p[0], p[1]])
    items[17][1] = 'ZZZ99'
    swaps[40][2] = 901
    kit.write(root, 'seeds', {
        'members': (['member_id', 'surname', 'first_name', 'email', 'joined'], members),
        'varieties': (['variety_code', 'name', 'parent_code', 'days_to_crop'], varieties),
        'parcels': (['member_id', 'season', 'beds', 'soil'], parcels),
        'swaps': (['swap_id', 'giver_id', 'taker_id', 'swapped_on', 'bags'], swaps),
        'swap_items': (['swap_id', 'variety_code', 'grams', 'grower_id', 'grown_in'], items),
    }, [['members', ['member_id']], ['varieties', ['variety_code']], ['parcels', ['member_id', 'season']],
                 ['swaps', ['swap_id']], ['swap_items', ['swap_id', 'variety_code']]],
        [['varieties', ['parent_code'], 'varieties', ['variety_code']], ['parcels', ['member_id'], 'members', ['member_id']],
                  ['swaps', ['giver_id'], 'members', ['member_id']], ['swaps', ['taker_id'], 'members', ['member_id']],
                  ['swap_items', ['swap_id'], 'swaps', ['swap_id']], ['swap_items', ['variety_code'], 'varieties', ['variety_code']],
                  ['swap_items', ['grower_id', 'grown_in'], 'parcels', ['member_id', 'season']]],
        [['swap_items', ['grower_id'], 'members', ['member_id']]], dirt)


def workshop(root, dirt):
    kinds = [[k, n] for k, n in [('SAW', 'Saw'), ('LTH', 'Lathe'), ('EXT', 'Extractor'), ('PRS', 'Press'), ('MLT', 'Melter'), ('CNC', 'Router')]]
    machines = [[i, r.choice(kinds)[0], word(8), r.randrange(1, 9)] for i in range(1, 41)]
    operators = [[i, word(8), word(6), r.randrange(1, i) if i > 3 else ''] for i in range(1, 181)]
    # Not every operator has a card, and a card goes by its operator's number.
    cards = [[o[0], f'{r.randrange(16**8):08X}', day(2021)] for o in operators if r.random() < .4]
    certificates = [[o[0], k[0], day(2020)] for o in operators for k in kinds if r.random() < .5]
    bookings = []
    for m in machines:
        for _ in range(60):
            bookings.append([m[0], day(2024, 200), r.randrange(1, 9), r.randrange(1, 181), r.choice([15, 30, 45, 60, 90])])
    seen = set()
    bookings = [b for b in bookings if not (tuple(b[:3]) in seen or seen.add(tuple(b[:3])))]
    repairs = [[i, *r.choice(bookings)[:3], round(r.uniform(5, 400), 2)] for i in range(1, 201)]
    machines[7][1] = 'saw'
    bookings[100][3] = 999
    kit.write(root, 'workshop', {
        'machine_kinds': (['kind', 'title'], kinds),
        'machines': (['machine_id', 'kind', 'nickname', 'room_no'], machines),
        'operators': (['operator_id', 'surname', 'first_name', 'supervisor_id'], operators),
        'operator_cards': (['operator_id', 'serial', 'issued_on'], cards),
        'certificates': (['operator_id', 'kind', 'passed_on'], certificates),
        'bookings': (['machine_id', 'day', 'slot', 'operator_id', 'minutes'], bookings),
        'repairs': (['repair_id', 'machine_id', 'day', 'slot', 'cost'], repairs),
    }, [['machine_kinds', ['kind']], ['machines', ['machine_id']], ['operators', ['operator_id']],
                 ['operator_cards', ['operator_id']], ['certificates', ['operator_id', 'kind']],
                 ['bookings', ['machine_id', 'day', 'slot']], ['repairs', ['repair_id']]],
        [['machines', ['kind'], 'machine_kinds', ['kind']], ['operators', ['supervisor_id'], 'operators', ['operator_id']],
                  ['operator_cards', ['operator_id'], 'operators', ['operator_id']],
                  ['certificates', ['operator_id'], 'operators', ['operator_id']], ['certificates', ['kind'], 'machine_kinds', ['kind']],
                  ['bookings', ['machine_id'], 'machines', ['machine_id']], ['bookings', ['operator_id'], 'operators', ['operator_id']],
                  ['repairs', ['machine_id', 'day', 'slot'], 'bookings', ['machine_id', 'day', 'slot']]],
        [['repairs', ['machine_id'], 'machines', ['machine_id']]], dirt)


def rounds(root, dirt):
    stops = [[f'S{i:04d}', word(10), round(r.uniform(48, 50), 5), round(r.uniform(8, 10), 5)] for i in range(1, 201)]
    routes = [[f'R{i:02d}', word(8), r.choice(['day', 'night'])] for i in range(1, 26)]
    route_stops = []
    for route in routes:
        for n, s in enumerate(r.sample(stops, r.randrange(8, 20)), 1):
            route_stops.append([route[0], n, s[0], r.randrange(2, 15)])
    drivers = [[i, word(8), day(2010)] for i in range(1, 61)]
    vehicles = [[i, f'{r.choice("KLM")}-{r.randrange(1000):03d}-{r.randrange(100):02d}', r.randrange(2008, 2024)] for i in range(1, 46)]
    trips = [[i, r.choice(routes)[0], r.randrange(1, 61), r.randrange(1, 46), day(2024, 300)] for i in range(1, 2501)]
    byroute = {}
    for rs in route_stops:
        byroute.setdefault(rs[0], []).append(rs)
    logs = []
    for t in trips:
        for rs in r.sample(byroute[t[1]], 3):
            logs.append([len(logs) + 1, t[0], t[1], rs[1], f'{r.randrange(5, 23):02d}:{r.randrange(60):02d}', r.randrange(0, 40)])
    trips[11][3] = 77
    logs[5][3] = 99
    kit.write(root, 'rounds', {
        'stops': (['stop_code', 'name', 'lat', 'lon'], stops),
        'routes': (['route_code', 'title', 'kind'], routes),
        'route_stops': (['route_code', 'position', 'stop_code', 'minutes'], route_stops),
        'drivers': (['driver_id', 'name', 'since'], drivers),
        'vehicles': (['vehicle_id', 'plate', 'built'], vehicles),
        'trips': (['trip_id', 'route_code', 'driver_id', 'vehicle_id', 'day'], trips),
        'trip_log': (['log_id', 'trip_id', 'route_code', 'position', 'at', 'crates'], logs),
    }, [['stops', ['stop_code']], ['routes', ['route_code']], ['route_stops', ['route_code', 'position']], ['drivers', ['driver_id']],
                 ['vehicles', ['vehicle_id']], ['trips', ['trip_id']], ['trip_log', ['log_id']]],
        [['route_stops', ['route_code'], 'routes', ['route_code']], ['route_stops', ['stop_code'], 'stops', ['stop_code']],
                  ['trips', ['route_code'], 'routes', ['route_code']], ['trips', ['driver_id'], 'drivers', ['driver_id']],
                  ['trips', ['vehicle_id'], 'vehicles', ['vehicle_id']], ['trip_log', ['trip_id'], 'trips', ['trip_id']],
                  ['trip_log', ['route_code', 'position'], 'route_stops', ['route_code', 'position']]],
        [['trip_log', ['route_code'], 'routes', ['route_code']]], dirt)


def invoices(root, dirt):
    countries = [[c, word(8)] for c in ['DE', 'FR', 'NL', 'BE', 'AT', 'CH', 'DK', 'PL', 'IT', 'ES']]
    currencies = [[c, word(6), d] for c, d in [('EUR', 2), ('CHF', 2), ('DKK', 2), ('PLN', 2), ('JPY', 0)]]
    customers = [[f'{1000 + i * 7}', word(10), r.choice(countries)[0], r.choice(['A', 'B', 'C'])] for i in range(400)]
    heads, lines = [], []
    for year in (2022, 2023, 2024):
        for no in range(1, 501):
            heads.append([year, no, r.choice(customers)[0], r.choice(currencies)[0], day(year, 360)])
            for n in range(1, r.randrange(2, 6)):
                lines.append([year, no, n, r.randrange(1, 80), r.randrange(1, 50), round(r.uniform(1, 90), 2)])
    articles = [[i, word(8), round(r.uniform(1, 90), 2)] for i in range(1, 81)]
    payments = [[i, *(h[:2] if r.random() < .9 else ('', '')), day(2022, 1000), round(r.uniform(5, 900), 2)]
                for i, h in enumerate(r.sample(heads, 1100), 1)]
    remarks = [[f'{r.randrange(16**8):08x}-{r.randrange(16**4):04x}-4{r.randrange(16**3):03x}-a{r.randrange(16**3):03x}-{r.randrange(16**12):012x}',
                r.choice(customers)[0], word(20)] for _ in range(300)]
    lines[33][3] = 0
    heads[12][2] = '0' + heads[12][2]
    customers[3][2] = 'de'
    kit.write(root, 'invoices', {
        'countries': (['iso', 'name'], countries),
        'currencies': (['currency', 'title', 'digits'], currencies),
        'customers': (['customer_no', 'name', 'country', 'class'], customers),
        'articles': (['article_id', 'title', 'price'], articles),
        'invoices': (['year', 'invoice_no', 'customer_no', 'currency', 'issued'], heads),
        'invoice_lines': (['year', 'invoice_no', 'line_no', 'article_id', 'pieces', 'price'], lines),
        'payments': (['payment_id', 'invoice_year', 'invoice_no', 'paid_on', 'amount'], payments),
        'remarks': (['remark_id', 'customer_no', 'text'], remarks),
    }, [['countries', ['iso']], ['currencies', ['currency']], ['customers', ['customer_no']], ['articles', ['article_id']],
                 ['invoices', ['year', 'invoice_no']], ['invoice_lines', ['year', 'invoice_no', 'line_no']], ['payments', ['payment_id']],
                 ['remarks', ['remark_id']]],
        [['customers', ['country'], 'countries', ['iso']], ['invoices', ['customer_no'], 'customers', ['customer_no']],
                  ['invoices', ['currency'], 'currencies', ['currency']],
                  ['invoice_lines', ['year', 'invoice_no'], 'invoices', ['year', 'invoice_no']],
                  ['invoice_lines', ['article_id'], 'articles', ['article_id']],
                  ['payments', ['invoice_year', 'invoice_no'], 'invoices', ['year', 'invoice_no']],
                  ['remarks', ['customer_no'], 'customers', ['customer_no']]],
        [], dirt)



def lights(root, dirt):
    """Every key is called id; columns are named for a role; who stands above says no word of kinship."""
    districts = [[i, word(8), r.choice(['north', 'south'])] for i in range(1, 9)]
    people = [[i, word(6) + ' ' + word(8), r.choice([p for p in range(1, i)][:25]) if i > 2 else '', day(1995, 9000)] for i in range(1, 141)]
    lights_ = [[i, word(8), r.randrange(1, 9), r.randrange(8, 60), r.randrange(1, 20), r.randrange(1, 20), round(r.uniform(8, 25), 1)]
               for i in range(1, 61)]
    services = [[i, r.randrange(1, 61), r.randrange(1, 141), day(2021), r.randrange(10, 400), r.choice(['lamp', 'lens', 'paint'])] for i in range(1, 901)]
    parts = [[i, word(8), round(r.uniform(1, 90), 2)] for i in range(1, 71)]
    used = sorted({(s[0], r.randrange(1, 71)) for s in services for _ in range(r.randrange(0, 3))})
    used = [[a, b, r.randrange(1, 6)] for a, b in used]
    # One row a light: totals, which point at the light and at which nothing points.
    totals = [[l[0], sum(1 for s in services if s[1] == l[0]), sum(s[4] for s in services if s[1] == l[0])] for l in lights_]
    kit.write(root, 'lights', {
        'District': (['id', 'name', 'coast'], districts),
        'Person': (['id', 'fullName', 'reportsTo', 'since'], people),
        'Light': (['id', 'name', 'district', 'height', 'warden', 'deputy', 'range'], lights_),
        'Service': (['id', 'light', 'clerk', 'doneOn', 'minutes', 'kind'], services),
        'Part': (['id', 'label', 'price'], parts),
        'ServicePart': (['serviceId', 'partId', 'pieces'], used),
        'LightTotals': (['lightId', 'services', 'minutes'], totals),
    }, [['District', ['id']], ['Person', ['id']], ['Light', ['id']], ['Service', ['id']], ['Part', ['id']],
        ['ServicePart', ['serviceId', 'partId']], ['LightTotals', ['lightId']]],
        [['Person', ['reportsTo'], 'Person', ['id']], ['Light', ['district'], 'District', ['id']], ['Light', ['warden'], 'Person', ['id']],
         ['Light', ['deputy'], 'Person', ['id']], ['Service', ['light'], 'Light', ['id']], ['Service', ['clerk'], 'Person', ['id']],
         ['ServicePart', ['serviceId'], 'Service', ['id']], ['ServicePart', ['partId'], 'Part', ['id']],
         ['LightTotals', ['lightId'], 'Light', ['id']]],
        [], dirt)


def faehre(root, dirt):
    """German; days written as numbers; a key of three and its children; a summary beside the detail; a place's name in two tables."""
    orte = [[i, word(8), r.randrange(10000, 99999)] for i in range(1, 31)]
    linien = [[f'L{n:02d}', *r.sample(range(1, 31), 2), r.randrange(20, 140)] for n in range(1, 13)]
    schiffe = [[i, word(6), r.randrange(1960, 2022), r.choice(['F', 'K'])] for i in range(101, 118)]
    fahrten = []
    for l in linien:
        for t in sorted({day(2024, 120, '%Y%m%d') for _ in range(70)}):
            for nr in range(1, r.randrange(2, 6)):
                fahrten.append([l[0], t, nr, r.choice(schiffe)[0], f'{r.randrange(5, 22):02d}:{r.choice(["00", "15", "30", "45"])}'])
    kunden = [[i, word(6), word(8), orte[r.randrange(30)][1], f'{word(6).lower()}{i}@post.example'] for i in range(1001, 1601)]
    buchungen = [[5000 + i, *r.choice(fahrten)[:3], r.choice(kunden)[0], r.randrange(1, 6), round(r.uniform(9, 90), 2)] for i in range(1800)]
    tage = {}
    for f in fahrten:
        tage.setdefault((f[0], f[1]), []).append(f)
    abschluss = [[l, t, len(fs), round(r.uniform(100, 900), 2)] for (l, t), fs in sorted(tage.items())]
    kit.write(root, 'faehre', {
        'orte': (['ort_nr', 'name', 'plz'], orte),
        'linien': (['linie', 'von_ort', 'nach_ort', 'dauer'], linien),
        'schiffe': (['schiff_nr', 'name', 'baujahr', 'art'], schiffe),
        'fahrten': (['linie', 'datum', 'lfd_nr', 'schiff_nr', 'abfahrt'], fahrten),
        'kunden': (['kunden_nr', 'vorname', 'nachname', 'wohnort', 'email'], kunden),
        'buchungen': (['buchung_nr', 'linie', 'datum', 'lfd_nr', 'kunden_nr', 'personen', 'betrag'], buchungen),
        'tagesabschluss': (['linie', 'datum', 'fahrten', 'einnahmen'], abschluss),
    }, [['orte', ['ort_nr']], ['linien', ['linie']], ['schiffe', ['schiff_nr']], ['fahrten', ['linie', 'datum', 'lfd_nr']], ['kunden', ['kunden_nr']],
        ['buchungen', ['buchung_nr']], ['tagesabschluss', ['linie', 'datum']]],
        [['linien', ['von_ort'], 'orte', ['ort_nr']], ['linien', ['nach_ort'], 'orte', ['ort_nr']], ['fahrten', ['linie'], 'linien', ['linie']],
         ['fahrten', ['schiff_nr'], 'schiffe', ['schiff_nr']], ['buchungen', ['linie', 'datum', 'lfd_nr'], 'fahrten', ['linie', 'datum', 'lfd_nr']],
         ['buchungen', ['kunden_nr'], 'kunden', ['kunden_nr']], ['tagesabschluss', ['linie'], 'linien', ['linie']]],
        [['buchungen', ['linie'], 'linien', ['linie']], ['fahrten', ['linie', 'datum'], 'tagesabschluss', ['linie', 'datum']],
         ['buchungen', ['linie', 'datum'], 'tagesabschluss', ['linie', 'datum']]], dirt)


def archive(root, dirt):
    """Sparse ids, counts and money beside them, a column of nulls alone, a table of few rows hit exactly, text codes."""
    ids = r.sample(range(1000, 90000), 900)
    boxes_ids, reader_ids = sorted(ids[:60]), sorted(ids[60:360])
    rooms = [[i, f'{r.choice("ABC")}{n:02d}'] for n, i in enumerate(sorted(r.sample(range(1000, 5000), 11)))]
    shelves = [f'{r.choice("KLM")}{r.choice("xyz")}-{i:03d}' for i in r.sample(range(1000), 80)]
    shelf = [[s, r.choice(rooms[:4])[0], r.randrange(4, 12)] for s in shelves]
    boxes = [[b, r.choice(shelves), r.randrange(1, 40), ''] for b in boxes_ids]
    readers = [[i, word(8), day(2015), round(r.uniform(0, 60), 2)] for i in reader_ids]
    files = [[f'{r.randrange(1850, 1950)}/{i:04d}', r.choice(boxes_ids), r.randrange(1, 300), word(20) + ' ' + word(12)] for i in range(700)]
    loans = [[n, r.choice(files)[0], r.choice(reader_ids), day(2022), r.randrange(1, 60), r.choice([0, 0, 0, 1, 2])] for n in range(1, 1500)]
    kit.write(root, 'archive', {
        'room': (['room_id', 'door'], rooms),
        'shelf': (['shelf_mark', 'room_id', 'boards'], shelf),
        'box': (['box_id', 'shelf_mark', 'file_count', 'successor_box'], boxes),
        'reader': (['reader_id', 'surname', 'member_since', 'fees_due'], readers),
        'file': (['file_no', 'box_id', 'sheets', 'title'], files),
        'loan': (['loan_no', 'file_no', 'reader_id', 'lent_on', 'days', 'reminders'], loans),
    }, [['room', ['room_id']], ['shelf', ['shelf_mark']], ['box', ['box_id']], ['reader', ['reader_id']], ['file', ['file_no']], ['loan', ['loan_no']]],
        [['shelf', ['room_id'], 'room', ['room_id']], ['box', ['shelf_mark'], 'shelf', ['shelf_mark']], ['file', ['box_id'], 'box', ['box_id']],
         ['loan', ['file_no'], 'file', ['file_no']], ['loan', ['reader_id'], 'reader', ['reader_id']]],
        [['box', ['successor_box'], 'box', ['box_id']]], dirt)


def estate(root, dirt):
    """Thirty-six tables in four areas: code tables, things, what belongs to them, monthly totals; legacy names in capitals."""
    tables, keys, links, implied = {}, [], [], []
    for area in ('FIN', 'HRM', 'LOG', 'SAL'):
        codes = {}
        for kind in ('STATUS', 'TYPE'):
            name = f'{area}_{kind}'
            codes[kind] = [f'{c}{n}' for n, c in enumerate(r.sample(string.ascii_uppercase, r.randrange(4, 9)))]
            tables[name] = ([f'{kind}_CD', 'DESCR'], [[c, word(10)] for c in codes[kind]])
            keys.append([name, [f'{kind}_CD']])
        things = [word(6).upper() for _ in range(3)]
        for place, thing in enumerate(things):
            first = r.choice([1, 100, 5000])
            count = r.randrange(60, 400)
            name = f'{area}_{thing}'
            header = [f'{thing}_ID', f'{thing}_NAME', 'STATUS_CD', 'AMT', 'CREATED_DT']
            rows = [[first + i, word(10), r.choice(codes['STATUS']), round(r.uniform(1, 9000), 2), day(2019, 1500)] for i in range(count)]
            links.append([name, ['STATUS_CD'], f'{area}_STATUS', ['STATUS_CD']])
            if place:
                above = things[place - 1]
                up = tables[f'{area}_{above}'][1]
                header.append(f'{above}_ID')
                rows = [row + [r.choice(up)[0]] for row in rows]
                links.append([name, [f'{above}_ID'], f'{area}_{above}', [f'{above}_ID']])
            tables[name] = (header, rows)
            keys.append([name, [f'{thing}_ID']])
            item = f'{area}_{thing}_ITEM'
            lines = [[row[0], n, r.choice(codes['TYPE']), r.randrange(1, 50), round(r.uniform(1, 300), 2)] for row in rows for n in range(1, r.randrange(2, 5))]
            tables[item] = ([f'{thing}_ID', 'LINE_NO', 'TYPE_CD', 'QTY', 'PRICE'], lines)
            keys.append([item, [f'{thing}_ID', 'LINE_NO']])
            links.append([item, [f'{thing}_ID'], name, [f'{thing}_ID']])
            links.append([item, ['TYPE_CD'], f'{area}_TYPE', ['TYPE_CD']])
        monthly = f'{area}_MONTHLY'
        top = things[0]
        rows = [[row[0], 202300 + m, r.randrange(0, 90), round(r.uniform(0, 900), 2)] for row in tables[f'{area}_{top}'][1][:40] for m in range(1, 7)]
        tables[monthly] = ([f'{top}_ID', 'PERIOD', 'ITEMS', 'TOTAL_AMT'], rows)
        keys.append([monthly, [f'{top}_ID', 'PERIOD']])
        links.append([monthly, [f'{top}_ID'], f'{area}_{top}', [f'{top}_ID']])
    kit.write(root, 'estate', tables, keys, links, implied, dirt)


if __name__ == '__main__':
    kit.main((seeds, workshop, rounds, invoices, lights, faehre, archive, estate), __doc__)
