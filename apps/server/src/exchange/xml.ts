// Texts in XML as workbooks of ISO/IEC 29500 hold them.

const signs: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };

/** Most texts have nothing in them that is written otherwise. */
const special = /[&<>"_\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]/u;

/** A text between tags or in an attribute. What XML cannot hold is written as `_xHHHH_` (ST_Xstring), and what looks like that, too. */
export const xml = (text: string): string =>
  !special.test(text)
    ? text
    : text
        .replaceAll(/_(?=x[0-9A-Fa-f]{4}_)/gu, '_x005F_')
        .replaceAll(
          /[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]/gu,
          (sign) => `_x${sign.charCodeAt(0).toString(16).toUpperCase().padStart(4, '0')}_`,
        )
        .replaceAll(/[&<>"]/gu, (sign) => signs[sign]!);

export const declaration = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n';
