"""Makes sets of tables whose keys and links are known, by rules unlike those of known_sets.py, and made after the weights of the survey
were fixed: what it says about these tells what it would say about tables that nobody here has seen. The same every time.

usage: unseen_sets.py FOLDER [DIRT]     as known_sets.py
"""
import random, uuid

import kit

r = random.Random(41)


def day(year=2023, span=700, form='%Y-%m-%d'):
    return kit.day(r, year, span, form)


def word(n=6):
    return kit.word(r, n)


def theatre(root, dirt):
    """French, keys named id_thing first and references after them, a price list by code, seats by three columns."""
    auteurs = [[i, word(8), r.randrange(1600, 1990)] for i in range(1, 41)]
    pieces = [[i, word(6) + ' ' + word(8), r.randrange(1, 41), r.choice([90, 105, 120, 150])] for i in range(1, 91)]
    salles = [[i, word(6), r.randrange(80, 900)] for i in range(1, 7)]
    tarifs = [['PL', 'plein', 32.0], ['RE', 'reduit', 21.5], ['JE', 'jeune', 12.0], ['GR', 'groupe', 18.0]]
    representations = [[i, r.randrange(1, 91), r.randrange(1, 7), day(), r.choice(['15:00', '20:00', '20:30'])] for i in range(1, 501)]
    spectateurs = [[i, word(6), word(8), f'{word(6).lower()}{i}@courrier.example'] for i in range(1, 701)]
    billets = sorted({(p[0], r.choice('ABCDEFGHJK'), r.randrange(1, 30)) for p in representations for _ in range(6)})
    billets = [[*b, r.randrange(1, 701) if r.random() < .9 else '', r.choice(tarifs)[0]] for b in billets]
    kit.write(root, 'theatre', {
        'auteurs': (['id_auteur', 'nom', 'annee_naissance'], auteurs),
        'pieces': (['id_piece', 'titre', 'id_auteur', 'duree'], pieces),
        'salles': (['id_salle', 'nom', 'capacite'], salles),
        'tarifs': (['code_tarif', 'libelle', 'prix'], tarifs),
        'representations': (['id_representation', 'id_piece', 'id_salle', 'date_rep', 'heure'], representations),
        'spectateurs': (['id_spectateur', 'prenom', 'nom', 'courriel'], spectateurs),
        'billets': (['id_representation', 'rang', 'siege', 'id_spectateur', 'code_tarif'], billets),
    }, [['auteurs', ['id_auteur']], ['pieces', ['id_piece']], ['salles', ['id_salle']], ['tarifs', ['code_tarif']],
        ['representations', ['id_representation']], ['spectateurs', ['id_spectateur']], ['billets', ['id_representation', 'rang', 'siege']]],
        [['pieces', ['id_auteur'], 'auteurs', ['id_auteur']], ['representations', ['id_piece'], 'pieces', ['id_piece']],
         ['representations', ['id_salle'], 'salles', ['id_salle']],
         ['billets', ['id_representation'], 'representations', ['id_representation']],
         ['billets', ['id_spectateur'], 'spectateurs', ['id_spectateur']], ['billets', ['code_tarif'], 'tarifs', ['code_tarif']]], [], dirt)


def dairy(root, dirt):
    """Short names in capitals, numbers in steps of ten, stock by two codes, who buys and who pays."""
    cust = [[10000 + 10 * i, word(10), r.choice(['N', 'S', 'E', 'W'])] for i in range(350)]
    art = [[200 + 5 * i, word(8), round(r.uniform(.4, 12), 2), r.choice(['KG', 'L', 'PC'])] for i in range(120)]
    unit = [['KG', 'kilogram'], ['L', 'litre'], ['PC', 'piece']]
    whs = [[c, word(8)] for c in ('HAM', 'KEL', 'ROS', 'BRE', 'LUE')]
    stk = [[w[0], a[0], r.randrange(0, 900)] for w in whs for a in art if r.random() < .7]
    ords = [[500000 + i, r.choice(cust)[0], r.choice(cust)[0] if r.random() < .2 else '', day(2022), r.choice(whs)[0]] for i in range(1500)]
    pos = [[o[0], 10 * n, r.choice(art)[0], r.randrange(1, 200), round(r.uniform(1, 400), 2)] for o in ords for n in range(1, r.randrange(2, 6))]
    dlv = [[900000 + i, o[0], day(2022), r.randrange(1, 8)] for i, o in enumerate(r.sample(ords, 1100))]
    kit.write(root, 'dairy', {
        'CUST': (['CUSTNO', 'CNAME', 'RGN'], cust),
        'ART': (['ARTNO', 'ANAME', 'LISTPR', 'UOM'], art),
        'UNITS': (['UOM', 'UNAME'], unit),
        'WHS': (['WHSCD', 'WNAME'], whs),
        'STK': (['WHSCD', 'ARTNO', 'QTY'], stk),
        'ORD': (['ORDNO', 'CUSTNO', 'PAYER', 'ORDDT', 'WHSCD'], ords),
        'ORDPOS': (['ORDNO', 'POSNO', 'ARTNO', 'QTY', 'NETVAL'], pos),
        'DLV': (['DLVNO', 'ORDNO', 'DLVDT', 'TRUCK'], dlv),
    }, [['CUST', ['CUSTNO']], ['ART', ['ARTNO']], ['UNITS', ['UOM']], ['WHS', ['WHSCD']], ['STK', ['WHSCD', 'ARTNO']], ['ORD', ['ORDNO']],
        ['ORDPOS', ['ORDNO', 'POSNO']], ['DLV', ['DLVNO']]],
        [['ART', ['UOM'], 'UNITS', ['UOM']], ['STK', ['WHSCD'], 'WHS', ['WHSCD']], ['STK', ['ARTNO'], 'ART', ['ARTNO']],
         ['ORD', ['CUSTNO'], 'CUST', ['CUSTNO']], ['ORD', ['PAYER'], 'CUST', ['CUSTNO']], ['ORD', ['WHSCD'], 'WHS', ['WHSCD']],
         ['ORDPOS', ['ORDNO'], 'ORD', ['ORDNO']], ['ORDPOS', ['ARTNO'], 'ART', ['ARTNO']], ['DLV', ['ORDNO'], 'ORD', ['ORDNO']]], [], dirt)


def observatory(root, dirt):
    """Keys drawn at random, nights by their date, a row that refers to another of its table, targets by a text code."""
    fresh = lambda: str(uuid.UUID(int=r.getrandbits(128), version=4))
    instruments = [[fresh(), word(8), r.choice(['optical', 'radio'])] for _ in range(12)]
    observers = [[fresh(), word(6) + ' ' + word(8), f'{word(8).lower()}@sky.example'] for _ in range(40)]
    nights = sorted({day(2023, 500) for _ in range(300)})
    nights = [[n, r.choice(observers)[0], r.choice(['clear', 'cloud', 'haze', 'wind'])] for n in nights]
    targets = [[f'{r.choice(["MV", "HB", "QX"])}{i:04d}{r.choice("abc")}', round(r.uniform(0, 360), 4), round(r.uniform(-90, 90), 4)] for i in r.sample(range(9999), 260)]
    exposures = []
    for i in range(2400):
        calibrated = r.choice(exposures)[0] if exposures and r.random() < .6 else ''
        exposures.append([fresh(), r.choice(nights)[0], r.choice(instruments)[0], r.choice(targets)[0], r.choice([30, 60, 120, 300, 600]), calibrated])
    notes = [[r.choice(exposures)[0], n, word(30)] for n in range(1, 400)]
    kit.write(root, 'observatory', {
        'instrument': (['instrument_uuid', 'model', 'band'], instruments),
        'observer': (['observer_uuid', 'full_name', 'mail'], observers),
        'night': (['night', 'chief_observer', 'weather'], nights),
        'target': (['designation', 'ra', 'declination'], targets),
        'exposure': (['exposure_uuid', 'night', 'instrument_uuid', 'target', 'seconds', 'calibrated_by'], exposures),
        'note': (['exposure_uuid', 'note_no', 'body'], notes),
    }, [['instrument', ['instrument_uuid']], ['observer', ['observer_uuid']], ['night', ['night']], ['target', ['designation']],
        ['exposure', ['exposure_uuid']], ['note', ['note_no']]],
        [['night', ['chief_observer'], 'observer', ['observer_uuid']], ['exposure', ['night'], 'night', ['night']],
         ['exposure', ['instrument_uuid'], 'instrument', ['instrument_uuid']], ['exposure', ['target'], 'target', ['designation']],
         ['exposure', ['calibrated_by'], 'exposure', ['exposure_uuid']], ['note', ['exposure_uuid'], 'exposure', ['exposure_uuid']]], [], dirt)


def kin(root, dirt):
    """Two tables: people with two parents each in the same table, and who married whom."""
    people = []
    for i in range(1, 601):
        has = i > 20
        people.append([i, word(6), word(8), r.randrange(max(1, i - 150), i) if has and r.random() < .9 else '',
                       r.randrange(max(1, i - 150), i) if has and r.random() < .9 else '', 1700 + i // 3])
    pairs = sorted({tuple(sorted(r.sample(range(1, 601), 2))) for _ in range(180)})
    kit.write(root, 'kin', {
        'person': (['person_no', 'given', 'family', 'father', 'mother', 'born'], people),
        'marriage': (['husband', 'wife', 'in_year'], [[a, b, 1720 + b // 3] for a, b in pairs]),
    }, [['person', ['person_no']], ['marriage', ['husband', 'wife']]],
        [['person', ['father'], 'person', ['person_no']], ['person', ['mother'], 'person', ['person_no']],
         ['marriage', ['husband'], 'person', ['person_no']], ['marriage', ['wife'], 'person', ['person_no']]], [], dirt)


def depot(root, dirt):
    """Places named by four columns; moves from one place to another; a month's summary beside the moves."""
    places = [[reg, d, a, s, r.choice(['dry', 'cold'])] for reg in ('NO', 'SU', 'WE') for d in range(1, 5) for a in 'ABCDEF' for s in range(1, r.randrange(6, 14))]
    goods = [[f'{r.randrange(10**7):07d}', word(10), round(r.uniform(.1, 40), 3)] for _ in range(200)]
    goods = list({g[0]: g for g in goods}.values())
    stock = [[*p[:4], g[0], r.randrange(1, 300)] for p in places for g in r.sample(goods, r.randrange(0, 4))]
    moves = [[i, *r.choice(places)[:4], *r.choice(places)[:4], r.choice(goods)[0], r.randrange(1, 90), day(2024, 200)] for i in range(1, 1601)]
    months = {}
    for m in moves:
        months.setdefault((m[1], m[2], m[11][:7]), []).append(m)
    summary = [[a, b, c, len(ms), sum(m[10] for m in ms)] for (a, b, c), ms in sorted(months.items())]
    place = ['region', 'depot', 'aisle', 'shelf']
    kit.write(root, 'depot', {
        'place': (place + ['climate'], places),
        'good': (['ean', 'name', 'kilos'], goods),
        'stock': (place + ['ean', 'pieces'], stock),
        'move': (['move_id'] + ['from_' + p for p in place] + ['to_' + p for p in place] + ['ean', 'pieces', 'moved_on'], moves),
        'depot_month': (['region', 'depot', 'month', 'moves', 'pieces'], summary),
    }, [['place', place], ['good', ['ean']], ['stock', place + ['ean']], ['move', ['move_id']], ['depot_month', ['region', 'depot', 'month']]],
        [['stock', place, 'place', place], ['stock', ['ean'], 'good', ['ean']], ['move', ['from_' + p for p in place], 'place', place],
         ['move', ['to_' + p for p in place], 'place', place], ['move', ['ean'], 'good', ['ean']]], [], dirt)


def padron(root, dirt):
    """Spanish; people by a card number, houses by street and number, a street's name in two tables, totals of a street."""
    calles = [[f'C{i:03d}', 'Calle ' + word(8)] for i in range(1, 61)]
    viviendas = [[c[0], n, r.randrange(40, 220), r.choice(['piso', 'casa'])] for c in calles for n in range(1, r.randrange(8, 25))]
    dni = [f'{r.randrange(10**8):08d}{r.choice("TRWAGMYFPDX")}' for _ in range(900)]
    vecinos = [[d, word(6), word(8), day(1940, 25000), *r.choice(viviendas)[:2]] for d in dni]
    tipos = [[i, t] for i, t in enumerate(['basura', 'agua', 'vado', 'mercado'], 1)]
    tasas = [[i, r.choice(dni), r.randrange(1, 5), r.randrange(2019, 2025), round(r.uniform(10, 300), 2)] for i in range(1, 2001)]
    recibos = [[f'R{i:06d}', r.randrange(1, 2001), day(2023), round(r.uniform(10, 300), 2)] for i in range(1, 1500)]
    homes = {}
    for v in viviendas:
        homes[v[0]] = homes.get(v[0], 0) + 1
    resumen = [[c[0], c[1], homes[c[0]], r.randrange(10, 90)] for c in calles]
    kit.write(root, 'padron', {
        'calles': (['cod_calle', 'nombre_calle'], calles),
        'viviendas': (['cod_calle', 'numero', 'metros', 'tipo'], viviendas),
        'vecinos': (['dni', 'nombre', 'apellido', 'nacimiento', 'cod_calle', 'numero'], vecinos),
        'tipos_tasa': (['id_tipo', 'descripcion'], tipos),
        'tasas': (['id_tasa', 'dni', 'id_tipo', 'ejercicio', 'importe'], tasas),
        'recibos': (['num_recibo', 'id_tasa', 'fecha', 'importe'], recibos),
        'resumen_calles': (['cod_calle', 'nombre_calle', 'viviendas', 'vecinos'], resumen),
    }, [['calles', ['cod_calle']], ['viviendas', ['cod_calle', 'numero']], ['vecinos', ['dni']], ['tipos_tasa', ['id_tipo']], ['tasas', ['id_tasa']],
        ['recibos', ['num_recibo']], ['resumen_calles', ['cod_calle']]],
        [['viviendas', ['cod_calle'], 'calles', ['cod_calle']], ['vecinos', ['cod_calle', 'numero'], 'viviendas', ['cod_calle', 'numero']],
         ['tasas', ['dni'], 'vecinos', ['dni']], ['tasas', ['id_tipo'], 'tipos_tasa', ['id_tipo']], ['recibos', ['id_tasa'], 'tasas', ['id_tasa']],
         ['resumen_calles', ['cod_calle'], 'calles', ['cod_calle']]],
        [['vecinos', ['cod_calle'], 'calles', ['cod_calle']]], dirt)


def clinic(root, dirt):
    """CamelCase, beds by ward and number, days as numbers, a count beside the thing counted, dates that keys of two tables share."""
    depts = [[c, word(8)] for c in ('CAR', 'DER', 'NEU', 'ONC', 'ORT', 'PED')]
    doctors = [[i, 'Dr ' + word(8), r.choice(depts)[0], r.randrange(1, i) if i > 4 and r.random() < .9 else ''] for i in range(1, 91)]
    wards = [[f'W{i:02d}', r.choice(depts)[0], r.randrange(1, 5)] for i in range(1, 16)]
    beds = [[w[0], n, r.choice(['standard', 'intensive'])] for w in wards for n in range(1, r.randrange(6, 14))]
    insurers = [[f'{r.randrange(10**9):09d}', word(10)] for _ in range(25)]
    patients = [[i, word(6), word(8), day(1940, 28000, '%Y%m%d'), r.choice(insurers)[0]] for i in range(20001, 20901)]
    visitors = [[i, word(6) + ' ' + word(6), r.randrange(20001, 20901)] for i in range(1, 301)]
    stays = [[i, r.randrange(20001, 20901), *r.choice(beds)[:2], day(2023, 600, '%Y%m%d'), r.randrange(1, 30), r.randrange(1, 91), r.choice([0, 0, 1, 2, 3])]
             for i in range(1, 1301)]
    medications = [[f'{r.choice("ABCDGHJ")}{r.randrange(10**4):04d}{r.choice("XYZ")}', word(8), r.choice(['mg', 'ml'])] for _ in range(110)]
    medications = list({m[0]: m for m in medications}.values())
    doses = [[s[0], n, r.choice(medications)[0], r.randrange(1, 91), r.randrange(1, 500)] for s in stays for n in range(1, r.randrange(1, 5))]
    invoices = [[f'I-{i:05d}', r.choice(stays)[0], round(r.uniform(90, 9000), 2), r.choice(['Y', 'N'])] for i in range(1, 900)]
    census = [[w[0], d, r.randrange(0, 12)] for w in wards for d in (20240101, 20240201, 20240301, 20240401)]
    kit.write(root, 'clinic', {
        'Department': (['DeptCode', 'Title'], depts),
        'Doctor': (['DoctorId', 'Name', 'DeptCode', 'SupervisorId'], doctors),
        'Ward': (['WardCode', 'DeptCode', 'Floor'], wards),
        'Bed': (['WardCode', 'BedNo', 'Kind'], beds),
        'Insurer': (['InsurerNo', 'Name'], insurers),
        'Patient': (['PatientId', 'FirstName', 'LastName', 'BirthDate', 'InsurerNo'], patients),
        'Visitor': (['VisitorId', 'FullName', 'PatientId'], visitors),
        'Stay': (['StayId', 'PatientId', 'WardCode', 'BedNo', 'AdmittedOn', 'Nights', 'AttendingDoctor', 'VisitorCount'], stays),
        'Medication': (['MedCode', 'Label', 'Unit'], medications),
        'Dose': (['StayId', 'SeqNo', 'MedCode', 'GivenBy', 'Amount'], doses),
        'Invoice': (['InvoiceNo', 'StayId', 'Amount', 'Paid'], invoices),
        'WardCensus': (['WardCode', 'CountedOn', 'Occupied'], census),
    }, [['Department', ['DeptCode']], ['Doctor', ['DoctorId']], ['Ward', ['WardCode']], ['Bed', ['WardCode', 'BedNo']], ['Insurer', ['InsurerNo']],
        ['Patient', ['PatientId']], ['Visitor', ['VisitorId']], ['Stay', ['StayId']], ['Medication', ['MedCode']], ['Dose', ['StayId', 'SeqNo']],
        ['Invoice', ['InvoiceNo']], ['WardCensus', ['WardCode', 'CountedOn']]],
        [['Doctor', ['DeptCode'], 'Department', ['DeptCode']], ['Doctor', ['SupervisorId'], 'Doctor', ['DoctorId']],
         ['Ward', ['DeptCode'], 'Department', ['DeptCode']], ['Bed', ['WardCode'], 'Ward', ['WardCode']],
         ['Patient', ['InsurerNo'], 'Insurer', ['InsurerNo']], ['Visitor', ['PatientId'], 'Patient', ['PatientId']],
         ['Stay', ['PatientId'], 'Patient', ['PatientId']], ['Stay', ['WardCode', 'BedNo'], 'Bed', ['WardCode', 'BedNo']],
         ['Stay', ['AttendingDoctor'], 'Doctor', ['DoctorId']], ['Dose', ['StayId'], 'Stay', ['StayId']],
         ['Dose', ['MedCode'], 'Medication', ['MedCode']], ['Dose', ['GivenBy'], 'Doctor', ['DoctorId']], ['Invoice', ['StayId'], 'Stay', ['StayId']],
         ['WardCensus', ['WardCode'], 'Ward', ['WardCode']]],
        [['Stay', ['WardCode'], 'Ward', ['WardCode']]], dirt)


def stars(root, dirt):
    """Sixty tables: things with a key that only counts, what happened with many of those and a day as a number, bridges between things."""
    names = []
    while len(names) < 40:
        w = word(6).lower()
        if w not in names:
            names.append(w)
    days = [[int(d.replace('-', '')), d, d[:7]] for d in sorted({day(2023, 400) for _ in range(500)})]
    tables = {'dim_day': (['day_key', 'full_date', 'month'], days)}
    keys, links = [['dim_day', ['day_key']]], []
    sizes = {}
    for n in names:
        sizes[n] = r.randrange(20, 900)
        tables['dim_' + n] = ([n + '_key', n + '_code', 'title', 'valid_from'],
                              [[i, f'{n[:2].upper()}{i * 37 % 10007:05d}', word(10), day(2018, 1500)] for i in range(1, sizes[n] + 1)])
        keys.append(['dim_' + n, [n + '_key']])
    for f in range(14):
        mine = r.sample(names, r.randrange(2, 5))
        name = f'fact_{word(4).lower()}{f}'
        rows = [[i, r.choice(days)[0], *(r.randrange(1, sizes[n] + 1) for n in mine), r.randrange(1, 60), round(r.uniform(1, 900), 2)]
                for i in range(1, r.randrange(900, 2500))]
        tables[name] = (['row_no', 'day_key'] + [n + '_key' for n in mine] + ['units', 'revenue'], rows)
        keys.append([name, ['row_no']])
        links.append([name, ['day_key'], 'dim_day', ['day_key']])
        links += [[name, [n + '_key'], 'dim_' + n, [n + '_key']] for n in mine]
    for b in range(5):
        one, other = r.sample(names, 2)
        name = f'bridge_{one}_{other}'
        rows = sorted({(r.randrange(1, sizes[one] + 1), r.randrange(1, sizes[other] + 1)) for _ in range(700)})
        tables[name] = ([one + '_key', other + '_key'], rows)
        keys.append([name, [one + '_key', other + '_key']])
        links += [[name, [one + '_key'], 'dim_' + one, [one + '_key']], [name, [other + '_key'], 'dim_' + other, [other + '_key']]]
    kit.write(root, 'stars', tables, keys, links, [], dirt)


if __name__ == '__main__':
    kit.main((theatre, dairy, observatory, kin, depot, padron, clinic, stars), __doc__)
