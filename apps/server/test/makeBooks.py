# Writes workbooks of both standards by libraries that share no code with Dellum: what stands where is said in reading.test.ts.
import datetime
import sys

import openpyxl
from odf.opendocument import OpenDocumentSpreadsheet
from odf.table import CoveredTableCell, Table, TableCell, TableRow
from odf.text import P, S, LineBreak
from odf.office import Annotation
from odf.style import Style, TableProperties
from openpyxl.utils.datetime import CALENDAR_MAC_1904

folder = sys.argv[1]


def book(path, epoch=None):
    made = openpyxl.Workbook()
    if epoch:
        made.epoch = epoch
    sheet = made.active
    sheet.title = "Log & list"
    sheet.append(["Text", "Number", "Day", "Moment", "Time", "Percent", "Yes"])
    sheet.append(
        [
            "00123 <a> \u00fc",
            0.1 + 0.2,
            datetime.date(2026, 11, 5),
            datetime.datetime(2026, 11, 5, 13, 30),
            datetime.time(7, 5),
            0.125,
            True,
        ]
    )
    sheet["F2"].number_format = "0.0%"
    sheet["A5"] = "two\nlines"
    sheet["B5"] = -1e-7
    sheet["C5"] = datetime.date(1904, 1, 2) if epoch else datetime.date(1900, 2, 28)
    sheet.merge_cells("A7:C7")
    sheet["A7"] = "merged"
    hidden = made.create_sheet("Hidden")
    hidden.sheet_state = "hidden"
    hidden["B2"] = "there"
    made.save(f"{folder}/{path}")


book("book.xlsx")
book("book1904.xlsx", CALENDAR_MAC_1904)


def cell(text=None, **attributes):
    made = TableCell(**attributes)
    if text is not None:
        made.addElement(P(text=text))
    return made


document = OpenDocumentSpreadsheet()
hidden = Style(name="hidden", family="table")
hidden.addElement(TableProperties(display="false"))
document.automaticstyles.addElement(hidden)
table = Table(name="Log & list")
heading = TableRow()
for name in ["Text", "Number", "Day", "Moment", "Percent", "Yes"]:
    heading.addElement(cell(name, valuetype="string"))
table.addElement(heading)
row = TableRow()
spaced = TableCell(valuetype="string")
paragraph = P(text="a")
paragraph.addElement(S(c=3))
paragraph.addText("b <c>")
paragraph.addElement(LineBreak())
paragraph.addText("d")
spaced.addElement(paragraph)
spaced.addElement(P(text="e"))
note = Annotation()
note.addElement(P(text="a note"))
spaced.addElement(note)
row.addElement(spaced)
row.addElement(cell("0,3", valuetype="float", value="0.30000000000000004"))
row.addElement(cell("05/11/2026", valuetype="date", datevalue="2026-11-05"))
row.addElement(cell("05/11/2026 13:30", valuetype="date", datevalue="2026-11-05T13:30:00"))
row.addElement(cell("12.5 %", valuetype="percentage", value="0.125"))
row.addElement(cell("TRUE", valuetype="boolean", booleanvalue="true"))
table.addElement(row)
table.addElement(TableRow(numberrowsrepeated="2"))
twice = TableRow(numberrowsrepeated="2")
twice.addElement(cell("same", valuetype="string", numbercolumnsrepeated="2"))
twice.addElement(CoveredTableCell())
twice.addElement(cell("5", valuetype="float", value="5", formula="of:=2+3"))
table.addElement(twice)
document.spreadsheet.addElement(table)
second = Table(name="Hidden", stylename=hidden)
only = TableRow()
only.addElement(cell("there", valuetype="string"))
second.addElement(only)
document.spreadsheet.addElement(second)
document.save(f"{folder}/book.ods")
