# Changes a workbook as somebody would in a program of its standard, by libraries that share no code with Dellum. What is to be done comes as JSON:
# set (cell -> value; null empties it), remove (rows), append (rows of values), sort (by a column), swap (two columns), unmark, rename (heading ->
# heading), above (a row above the headings), about (text of the mark on the sheet About is dropped).
import datetime
import json
import sys

import openpyxl

path, wanted = sys.argv[1], json.loads(sys.argv[2])
book = openpyxl.load_workbook(path)
sheet = book.worksheets[0]


def value_of(held):
    return datetime.date.fromisoformat(held["day"]) if isinstance(held, dict) else held


for name, held in wanted.get("set", {}).items():
    sheet[name] = value_of(held)
for row in wanted.get("append", []):
    sheet.append([value_of(held) for held in row])
for row in sorted(wanted.get("remove", []), reverse=True):
    sheet.delete_rows(row)
rows = [[cell.value for cell in row] for row in sheet.iter_rows()]
if "sort" in wanted:
    rows[1:] = sorted(rows[1:], key=lambda row: str(row[wanted["sort"]] or "~"), reverse=True)
if "swap" in wanted:
    one, other = wanted["swap"]
    for row in rows:
        row[one], row[other] = row[other], row[one]
for at, row in enumerate(rows):
    for place, held in enumerate(row):
        cell = sheet.cell(at + 1, place + 1)
        cell.value = held
        # A text stays one.
        if isinstance(held, str):
            cell.data_type = "s"
last = sheet.max_column
if wanted.get("unmark"):
    sheet.delete_cols(last)
if "mark" in wanted:
    sheet.cell(1, last).value = wanted["mark"].replace("{}", sheet.cell(1, last).value)
for cell in sheet[1]:
    cell.value = wanted.get("rename", {}).get(cell.value, cell.value)
if wanted.get("above"):
    sheet.insert_rows(1)
    sheet["A1"] = wanted["above"]
if wanted.get("about"):
    about = book["About"]
    for row in about.iter_rows():
        for cell in row:
            if str(cell.value).startswith("Dellum, to be"):
                cell.value = None
book.save(path)
