# Writes rows as a workbook of either standard by libraries that share no code with Dellum. What is to be written comes as JSON on standard input:
# {"path": ..., "sheets": [{"title": ..., "rows": [[...], ...], "merge": ["A1:C1", ...]}]}; {"day": "2026-11-05"} is a day.
import datetime
import json
import sys

import openpyxl
from odf.opendocument import OpenDocumentSpreadsheet
from odf.table import Table, TableCell, TableRow
from odf.text import P

wanted = json.load(sys.stdin)


def value_of(held):
    return datetime.date.fromisoformat(held["day"]) if isinstance(held, dict) else held


def book():
    made = openpyxl.Workbook()
    made.remove(made.active)
    for sheet in wanted["sheets"]:
        own = made.create_sheet(sheet["title"])
        for row in sheet["rows"]:
            own.append([None if held == "" else value_of(held) for held in row])
        for cells in sheet.get("merge", []):
            own.merge_cells(cells)
    made.save(wanted["path"])


def cell_of(held):
    if held == "":
        return TableCell()
    if isinstance(held, dict):
        cell = TableCell(valuetype="date", datevalue=held["day"])
        cell.addElement(P(text=held["day"]))
    elif isinstance(held, (int, float)):
        cell = TableCell(valuetype="float", value=held)
        cell.addElement(P(text=str(held)))
    else:
        cell = TableCell(valuetype="string")
        cell.addElement(P(text=held))
    return cell


def open_document():
    made = OpenDocumentSpreadsheet()
    for sheet in wanted["sheets"]:
        table = Table(name=sheet["title"])
        for row in sheet["rows"]:
            own = TableRow()
            for held in row:
                own.addElement(cell_of(held))
            table.addElement(own)
        made.spreadsheet.addElement(table)
    made.save(wanted["path"])


open_document() if wanted["path"].endswith(".ods") else book()
