# Reads a spreadsheet of OpenDocument with a reader that shares no code with Dellum, and says as JSON what it has found.
import json
import sys
import zipfile
from xml.etree import ElementTree

from odf import opendocument, style, table, text
from odf.namespaces import FONS, OFFICENS, STYLENS, TABLENS

path = sys.argv[1]

# The kind of the package stands first and plain; every part is well-formed and in the manifest.
with zipfile.ZipFile(path) as package:
    assert package.testzip() is None
    first = package.infolist()[0]
    assert (first.filename, first.compress_type, first.extra) == ('mimetype', zipfile.ZIP_STORED, b'')
    names = package.namelist()
    for name in names[1:]:
        ElementTree.fromstring(package.read(name))
    manifest = ElementTree.fromstring(package.read('META-INF/manifest.xml'))
    listed = {value for entry in manifest for key, value in entry.attrib.items() if key.endswith('full-path')}
    assert listed == {'/', *(name for name in names if name != 'mimetype' and not name.startswith('META-INF/'))}, listed

book = opendocument.load(path)


def shown(element):
    return '\n'.join(str(paragraph) for paragraph in element.getElementsByType(text.P))


def cells_of(row):
    for cell in row.getElementsByType(table.TableCell):
        kind = cell.getAttrNS(OFFICENS, 'value-type')
        value = cell.getAttrNS(OFFICENS, 'date-value' if kind == 'date' else 'value') if kind and kind != 'string' else shown(cell)
        for _ in range(int(cell.getAttrNS(TABLENS, 'number-columns-repeated') or 1)):
            yield [kind, value, cell.getAttrNS(TABLENS, 'content-validation-name')]


def rows_of(sheet):
    for row in sheet.getElementsByType(table.TableRow):
        yield [int(row.getAttrNS(TABLENS, 'number-rows-repeated') or 1), list(cells_of(row))]


def message(check, kind):
    found = check.getElementsByType(kind)
    return [[one.getAttrNS(TABLENS, 'message-type') if kind is table.ErrorMessage else None, one.getAttrNS(TABLENS, 'title'), shown(one)] for one in found]


# What a style gives way to, with the colour that the other one has.
tints = {one.getAttrNS(STYLENS, 'name'): one.getElementsByType(style.TableCellProperties)[0].getAttrNS(FONS, 'background-color')
         for one in book.styles.getElementsByType(style.Style)}
colours = [[one.getAttrNS(STYLENS, 'name'), condition.getAttrNS(STYLENS, 'condition'), tints[condition.getAttrNS(STYLENS, 'apply-style-name')]]
           for one in book.automaticstyles.getElementsByType(style.Style) for condition in one.getElementsByType(style.Map)]

print(json.dumps({
    'colours': colours,
    'names': {
        **{one.getAttrNS(TABLENS, 'name'): one.getAttrNS(TABLENS, 'cell-range-address') for one in book.spreadsheet.getElementsByType(table.NamedRange)},
        **{one.getAttrNS(TABLENS, 'name'): one.getAttrNS(TABLENS, 'expression') for one in book.spreadsheet.getElementsByType(table.NamedExpression)},
    },
    'checks': {
        check.getAttrNS(TABLENS, 'name'): {
            'condition': check.getAttrNS(TABLENS, 'condition'),
            'blank': check.getAttrNS(TABLENS, 'allow-empty-cell'),
            'help': message(check, table.HelpMessage),
            'refusal': message(check, table.ErrorMessage),
        } for check in book.spreadsheet.getElementsByType(table.ContentValidation)
    },
    'sheets': [[sheet.getAttrNS(TABLENS, 'name'), list(rows_of(sheet))] for sheet in book.spreadsheet.getElementsByType(table.Table)],
}))
