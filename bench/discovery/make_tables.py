"""Makes sets of tables whose keys and links are known, with traps: composite keys and links, links of a table to itself, two
links to one parent, linking tables, codes, one to one, id ranges that overlap, and a few dirty rows. The same every time.

usage: make_tables.py FOLDER     each set gets a folder with CSV files and truth.json
"""
import csv, datetime, json, os, random, string, sys

r = random.Random(2026)


def day(year=2023, span=700):
    return (datetime.date(year, 1, 1) + datetime.timedelta(days=r.randrange(span))).isoformat()


def word(n=6):
    return ''.join(r.choice('bcdfghlmnprstv') + r.choice('aeiou') for _ in range(n // 2)).capitalize()


def write(folder, tables, truth):
    os.makedirs(folder, exist_ok=True)
    for name, (header, rows) in tables.items():
        with open(os.path.join(folder, name + '.csv'), 'w', newline='') as f:
            w = csv.writer(f, lineterminator='\n')
            w.writerow(header)
            w.writerows(rows)
    with open(os.path.join(folder, 'truth.json'), 'w') as f:
        json.dump(truth, f, indent=1)


def seeds(folder):
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
    write(folder, {
        'members': (['member_id', 'surname', 'first_name', 'email', 'joined'], members),
        'varieties': (['variety_code', 'name', 'parent_code', 'days_to_crop'], varieties),
        'parcels': (['member_id', 'season', 'beds', 'soil'], parcels),
        'swaps': (['swap_id', 'giver_id', 'taker_id', 'swapped_on', 'bags'], swaps),
        'swap_items': (['swap_id', 'variety_code', 'grams', 'grower_id', 'grown_in'], items),
    }, {'keys': [['members', ['member_id']], ['varieties', ['variety_code']], ['parcels', ['member_id', 'season']],
                 ['swaps', ['swap_id']], ['swap_items', ['swap_id', 'variety_code']]],
        'links': [['varieties', ['parent_code'], 'varieties', ['variety_code']], ['parcels', ['member_id'], 'members', ['member_id']],
                  ['swaps', ['giver_id'], 'members', ['member_id']], ['swaps', ['taker_id'], 'members', ['member_id']],
                  ['swap_items', ['swap_id'], 'swaps', ['swap_id']], ['swap_items', ['variety_code'], 'varieties', ['variety_code']],
                  ['swap_items', ['grower_id', 'grown_in'], 'parcels', ['member_id', 'season']]],
        'implied': [['swap_items', ['grower_id'], 'members', ['member_id']]]})


def workshop(folder):
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
    write(folder, {
        'machine_kinds': (['kind', 'title'], kinds),
        'machines': (['machine_id', 'kind', 'nickname', 'room_no'], machines),
        'operators': (['operator_id', 'surname', 'first_name', 'supervisor_id'], operators),
        'operator_cards': (['operator_id', 'serial', 'issued_on'], cards),
        'certificates': (['operator_id', 'kind', 'passed_on'], certificates),
        'bookings': (['machine_id', 'day', 'slot', 'operator_id', 'minutes'], bookings),
        'repairs': (['repair_id', 'machine_id', 'day', 'slot', 'cost'], repairs),
    }, {'keys': [['machine_kinds', ['kind']], ['machines', ['machine_id']], ['operators', ['operator_id']],
                 ['operator_cards', ['operator_id']], ['certificates', ['operator_id', 'kind']],
                 ['bookings', ['machine_id', 'day', 'slot']], ['repairs', ['repair_id']]],
        'links': [['machines', ['kind'], 'machine_kinds', ['kind']], ['operators', ['supervisor_id'], 'operators', ['operator_id']],
                  ['operator_cards', ['operator_id'], 'operators', ['operator_id']],
                  ['certificates', ['operator_id'], 'operators', ['operator_id']], ['certificates', ['kind'], 'machine_kinds', ['kind']],
                  ['bookings', ['machine_id'], 'machines', ['machine_id']], ['bookings', ['operator_id'], 'operators', ['operator_id']],
                  ['repairs', ['machine_id', 'day', 'slot'], 'bookings', ['machine_id', 'day', 'slot']]],
        'implied': [['repairs', ['machine_id'], 'machines', ['machine_id']]]})


def rounds(folder):
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
    write(folder, {
        'stops': (['stop_code', 'name', 'lat', 'lon'], stops),
        'routes': (['route_code', 'title', 'kind'], routes),
        'route_stops': (['route_code', 'position', 'stop_code', 'minutes'], route_stops),
        'drivers': (['driver_id', 'name', 'since'], drivers),
        'vehicles': (['vehicle_id', 'plate', 'built'], vehicles),
        'trips': (['trip_id', 'route_code', 'driver_id', 'vehicle_id', 'day'], trips),
        'trip_log': (['log_id', 'trip_id', 'route_code', 'position', 'at', 'crates'], logs),
    }, {'keys': [['stops', ['stop_code']], ['routes', ['route_code']], ['route_stops', ['route_code', 'position']], ['drivers', ['driver_id']],
                 ['vehicles', ['vehicle_id']], ['trips', ['trip_id']], ['trip_log', ['log_id']]],
        'links': [['route_stops', ['route_code'], 'routes', ['route_code']], ['route_stops', ['stop_code'], 'stops', ['stop_code']],
                  ['trips', ['route_code'], 'routes', ['route_code']], ['trips', ['driver_id'], 'drivers', ['driver_id']],
                  ['trips', ['vehicle_id'], 'vehicles', ['vehicle_id']], ['trip_log', ['trip_id'], 'trips', ['trip_id']],
                  ['trip_log', ['route_code', 'position'], 'route_stops', ['route_code', 'position']]],
        'implied': [['trip_log', ['route_code'], 'routes', ['route_code']]]})


def invoices(folder):
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
    write(folder, {
        'countries': (['iso', 'name'], countries),
        'currencies': (['currency', 'title', 'digits'], currencies),
        'customers': (['customer_no', 'name', 'country', 'class'], customers),
        'articles': (['article_id', 'title', 'price'], articles),
        'invoices': (['year', 'invoice_no', 'customer_no', 'currency', 'issued'], heads),
        'invoice_lines': (['year', 'invoice_no', 'line_no', 'article_id', 'pieces', 'price'], lines),
        'payments': (['payment_id', 'invoice_year', 'invoice_no', 'paid_on', 'amount'], payments),
        'remarks': (['remark_id', 'customer_no', 'text'], remarks),
    }, {'keys': [['countries', ['iso']], ['currencies', ['currency']], ['customers', ['customer_no']], ['articles', ['article_id']],
                 ['invoices', ['year', 'invoice_no']], ['invoice_lines', ['year', 'invoice_no', 'line_no']], ['payments', ['payment_id']],
                 ['remarks', ['remark_id']]],
        'links': [['customers', ['country'], 'countries', ['iso']], ['invoices', ['customer_no'], 'customers', ['customer_no']],
                  ['invoices', ['currency'], 'currencies', ['currency']],
                  ['invoice_lines', ['year', 'invoice_no'], 'invoices', ['year', 'invoice_no']],
                  ['invoice_lines', ['article_id'], 'articles', ['article_id']],
                  ['payments', ['invoice_year', 'invoice_no'], 'invoices', ['year', 'invoice_no']],
                  ['remarks', ['customer_no'], 'customers', ['customer_no']]],
        'implied': []})


if __name__ == '__main__':
    root = sys.argv[1]
    for make in (seeds, workshop, rounds, invoices):
        make(os.path.join(root, make.__name__))
