# Reads packed tables with their description (CSVW, W3C 2015) and checks one against the other, with nothing but Python's own library: headings,
# kinds, bounds, what must not be blank, primary and foreign keys. Says as JSON the rows of each table and what does not hold.
import csv
import datetime
import decimal
import io
import json
import re
import sys
import urllib.parse
import zipfile

with zipfile.ZipFile(sys.argv[1]) as package:
    assert package.testzip() is None
    names = package.namelist()
    description = json.loads(package.read('csv-metadata.json'))
    context = description['@context']
    assert context[0] == 'http://www.w3.org/ns/csvw' and re.match(r'^[a-z]{2}(-[A-Z]{2})?$', context[1]['@language']), context
    texts = {name: package.read(name).decode('utf-8') for name in names if name != 'csv-metadata.json'}

faults = []


def value_of(text, datatype):
    kind = datatype if isinstance(datatype, str) else datatype['base']
    more = {} if isinstance(datatype, str) else datatype
    if kind in ('decimal', 'integer'):
        value = decimal.Decimal(text)
        assert kind == 'decimal' or value == value.to_integral_value(), text
        parse = decimal.Decimal
    elif kind == 'date':
        value, parse = datetime.date.fromisoformat(text), datetime.date.fromisoformat
    elif kind == 'boolean':
        yes, no = more['format'].split('|')
        assert text in (yes, no), text
        return text == yes
    else:
        assert kind == 'string', kind
        if 'format' in more:
            assert re.fullmatch(more['format'], text), text
        assert more.get('minLength', 0) <= len(text) <= more.get('maxLength', len(text)), text
        return text
    for name, holds in (('minimum', lambda a, b: a >= b), ('maximum', lambda a, b: a <= b)):
        if name in more:
            assert holds(value, parse(more[name])), (text, name)
    return value


tables = {}
for table in description['tables']:
    url = urllib.parse.unquote(table['url'])
    columns = table['tableSchema']['columns']
    names_of = [column['name'] for column in columns]
    assert len(set(names_of)) == len(names_of) and all(re.fullmatch(r'[A-Za-z0-9_.]+', name) for name in names_of), names_of
    heading, *rows = csv.reader(io.StringIO(texts[url], newline=''))
    assert heading == [column['titles'] for column in columns], heading
    read = []
    for number, row in enumerate(rows, 2):
        assert len(row) == len(columns), row
        read.append(dict(zip(names_of, row)))
        for column, text in zip(columns, row):
            try:
                assert text != '' or not column.get('required'), 'blank'
                for part in text.split(column['separator']) if 'separator' in column else [text]:
                    if part != '':
                        value_of(part, column['datatype'])
            except (AssertionError, ValueError, decimal.InvalidOperation) as error:
                faults.append([url, number, column['name'], str(error)])
    key = table['tableSchema'].get('primaryKey')
    if key:
        keys = [tuple(row[name] for name in key) for row in read]
        assert len(set(keys)) == len(keys), url
    tables[url] = read

for table in description['tables']:
    url = urllib.parse.unquote(table['url'])
    for key in table['tableSchema'].get('foreignKeys', []):
        listed = {
            tuple(row[name] for name in key['reference']['columnReference'])
            for row in tables[urllib.parse.unquote(key['reference']['resource'])]
        }
        for number, row in enumerate(tables[url], 2):
            held = tuple(row[name] for name in key['columnReference'])
            if '' not in held and held not in listed:
                faults.append([url, number, ' '.join(key['columnReference']), ' '.join(held)])

assert set(texts) == {urllib.parse.unquote(table['url']) for table in description['tables']}, names
print(json.dumps({'tables': tables, 'faults': faults}))
