# Writes rows as a workbook of either standard by libraries that share no code with Dellum. What is to be written comes as JSON on standard input:
# {"path": ..., "sheets": [{"title": ..., "rows": [[...], ...], "merge": ["A1:C1", ...], "hidden": true, "checks": [{"cells": "B2:B9", "type": "list",
# ...}]}], "names": {"Pilots": "Lists!$A$2:$A$9"}}; {"day": "2026-11-05"} is a day. In
# the other standard a check is {"column": 0, "condition": ..., "help": [title, words], "error": [type, words]}, for all rows below the headings; its
# sheets are not hidden.
import datetime
import json
import sys

import openpyxl
from odf.opendocument import OpenDocumentSpreadsheet
from odf.table import (
    ContentValidation,
    ContentValidations,
    ErrorMessage,
    HelpMessage,
    NamedExpressions,
    NamedRange,
    Table,
    TableCell,
    TableRow,
)
from odf.text import P
from openpyxl.workbook.defined_name import DefinedName
from openpyxl.worksheet.datavalidation import DataValidation

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
        if sheet.get("hidden"):
            own.sheet_state = "hidden"
        for check in sheet.get("checks", []):
            cells = check.pop("cells")
            made_check = DataValidation(showErrorMessage=True, showInputMessage=True, **check)
            made_check.add(cells)
            own.add_data_validation(made_check)
    for name, formula in wanted.get("names", {}).items():
        made.defined_names.append(DefinedName(name, attr_text=formula))
    made.save(wanted["path"])


def cell_of(held, **attributes):
    if held == "":
        return TableCell(**attributes)
    if isinstance(held, dict):
        cell = TableCell(valuetype="date", datevalue=held["day"], **attributes)
        cell.addElement(P(text=held["day"]))
    elif isinstance(held, (int, float)):
        cell = TableCell(valuetype="float", value=held, **attributes)
        cell.addElement(P(text=str(held)))
    else:
        cell = TableCell(valuetype="string", **attributes)
        cell.addElement(P(text=held))
    return cell


def validation_of(name, check):
    made = ContentValidation(name=name, condition=check["condition"], allowemptycell=check.get("blank", "true"))
    if "help" in check:
        title, words = check["help"]
        message = HelpMessage(title=title, display="true")
        message.addElement(P(text=words))
        made.addElement(message)
    if "error" in check:
        kind, words = check["error"]
        message = ErrorMessage(messagetype=kind, display="true")
        message.addElement(P(text=words))
        made.addElement(message)
    return made


def open_document():
    made = OpenDocumentSpreadsheet()
    validations = ContentValidations()
    for place, sheet in enumerate(wanted["sheets"]):
        for check in sheet.get("checks", []):
            check["name"] = f"check {place} {check['column']}"
            validations.addElement(validation_of(check["name"], check))
    if validations.childNodes:
        made.spreadsheet.addElement(validations)
    for sheet in wanted["sheets"]:
        table = Table(name=sheet["title"])
        named = {check["column"]: check["name"] for check in sheet.get("checks", [])}
        for at, row in enumerate(sheet["rows"]):
            own = TableRow()
            for column, held in enumerate(row):
                checked = {"contentvalidationname": named[column]} if at > 0 and column in named else {}
                own.addElement(cell_of(held, **checked))
            table.addElement(own)
        made.spreadsheet.addElement(table)
    if wanted.get("names"):
        names = NamedExpressions()
        for name, cells in wanted["names"].items():
            names.addElement(NamedRange(name=name, cellrangeaddress=cells, basecelladdress="$Lists.$A$1"))
        made.spreadsheet.addElement(names)
    made.save(wanted["path"])


open_document() if wanted["path"].endswith(".ods") else book()
