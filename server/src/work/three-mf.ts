import type { Mesh } from '@radiant/core';
import { strToU8, zipSync } from 'fflate';

/** One body of a 3MF file. */
export interface Body {
  readonly name: string;
  readonly mesh: Mesh;
}

const ENTITIES: Readonly<Record<string, string>> = {
  '<': '&lt;',
  '>': '&gt;',
  '&': '&amp;',
  '"': '&quot;',
  "'": '&apos;',
};
const escaped = (s: string): string => s.replace(/[<>&"']/g, (c) => ENTITIES[c] as string);

/**
 * Writes bodies as one 3MF package, millimetres, each an object of the build (3MF Core Specification 1.x and Open
 * Packaging Conventions, from memory).
 */
export function writeThreeMf(bodies: readonly Body[], title: string): Uint8Array {
  const objects = bodies.map(({ name, mesh }, i) => {
    const rows: string[] = [`<object id="${i + 1}" type="model" name="${escaped(name)}"><mesh><vertices>`];
    const p = mesh.positions;
    for (let v = 0; v < p.length; v += 3)
      rows.push(
        `<vertex x="${(p[v] as number).toFixed(4)}" y="${(p[v + 1] as number).toFixed(4)}" z="${(p[v + 2] as number).toFixed(4)}"/>`,
      );
    rows.push('</vertices><triangles>');
    const t = mesh.triangles;
    for (let k = 0; k < t.length; k += 3) rows.push(`<triangle v1="${t[k]}" v2="${t[k + 1]}" v3="${t[k + 2]}"/>`);
    rows.push('</triangles></mesh></object>');
    return rows.join('');
  });
  const model = `<?xml version="1.0" encoding="UTF-8"?>
<model unit="millimeter" xml:lang="en-US" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02"><metadata name="Title">${escaped(title)}</metadata><resources>${objects.join('')}</resources><build>${bodies.map((_, i) => `<item objectid="${i + 1}"/>`).join('')}</build></model>`;
  return zipSync({
    '[Content_Types].xml': strToU8(
      '<?xml version="1.0" encoding="UTF-8"?>\n<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>',
    ),
    '_rels/.rels': strToU8(
      '<?xml version="1.0" encoding="UTF-8"?>\n<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Target="/3D/3dmodel.model" Id="rel0" Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>',
    ),
    '3D/3dmodel.model': strToU8(model),
  });
}
