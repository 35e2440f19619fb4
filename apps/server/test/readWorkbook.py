# Reads a workbook with a reader that shares no code with Dellum, and says as JSON what it has found.
import json
import sys
import zipfile
from xml.etree import ElementTree

import openpyxl

path = sys.argv[1]

# Every part is well-formed, and every relationship leads to a part that is there.
with zipfile.ZipFile(path) as package:
    assert package.testzip() is None
    names = package.namelist()
    for name in names:
        root = ElementTree.fromstring(package.read(name))
        if name.endswith('.rels'):
            folder = name.replace('_rels/', '').rsplit('/', 1)[0] + '/' if '/' in name.replace('_rels/', '') else ''
            for relation in root:
                assert folder + relation.attrib['Target'] in names, relation.attrib['Target']

book = openpyxl.load_workbook(path)
attributes = ['type', 'operator', 'formula1', 'formula2', 'errorStyle', 'error', 'promptTitle', 'prompt', 'allowBlank', 'sqref']
print(json.dumps({
    'names': {name: defined.attr_text for name, defined in ((one.name, one) for one in book.defined_names.definedName)},
    'sheets': [{
        'title': sheet.title,
        'frozen': sheet.freeze_panes,
        'rows': [[[cell.data_type, cell.number_format, cell.value.isoformat() if hasattr(cell.value, 'isoformat') else cell.value]
                  for cell in row] for row in sheet.iter_rows()],
        'checks': [{key: str(getattr(check, key)) for key in attributes if getattr(check, key) is not None}
                   for check in sheet.data_validations.dataValidation],
        'colours': [[str(area.sqref), rule.type, rule.operator, rule.formula[0], rule.dxf.fill.bgColor.rgb]
                    for area in sheet.conditional_formatting for rule in area.rules],
    } for sheet in book.worksheets],
}))
