/** What scenes as text tell of themselves at their beginning: by open standards, read by our own few lines. */
import type { MediaFacts } from '@nesting/core/listing';

/** `null` for a text that is no scene. */
export function sceneFacts(head: string): MediaFacts | null {
  if (head.startsWith('#usda'))
    return { content: 'usda', ...metres(usdLayer(head), /\bmetersPerUnit\s*=\s*([\d.eE+-]+)/) };
  if (/^\uFEFF?\s*<(?:\?xml|!--|COLLADA)/.test(head) && /<COLLADA[\s>]/.test(head))
    return { content: 'dae', ...metres(head, /<unit\b[^>]*?\bmeter\s*=\s*["']([\d.eE+-]+)["']/) };
  return null;
}

/** What a layer says of itself stands in the first brackets; comments and documentation in it say nothing. */
function usdLayer(head: string): string {
  const open = head.indexOf('(');
  const body = head.indexOf('\ndef ');
  if (open < 0 || (body >= 0 && body < open)) return '';
  const own = body < 0 ? head : head.slice(0, body);
  return own.replace(/"""[\s\S]*?"""|"(?:[^"\\\n]|\\.)*"|#[^\n]*/g, '');
}

function metres(text: string, sought: RegExp): Pick<MediaFacts, 'metresPerUnit'> {
  const metresPerUnit = Number(sought.exec(text)?.[1]);
  return metresPerUnit > 0 && Number.isFinite(metresPerUnit) ? { metresPerUnit } : {};
}
