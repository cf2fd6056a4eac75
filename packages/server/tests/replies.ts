/** Every reply in the server's tests is held against what its row in the table of endpoints says. */
import { ANY_REFUSAL, ENDPOINTS, type Spec } from '@nesting/contract';
import type { RefusalCode } from '@nesting/core/words';
import { z } from 'zod';

interface Row {
  readonly name: string;
  readonly spec: Spec;
  readonly address: RegExp;
}

const ROWS: readonly Row[] = Object.entries(ENDPOINTS).map(([name, spec]) => ({
  name,
  spec,
  address: new RegExp(`^${spec.path.replace(/:\w+/g, '[^/]+')}$`),
}));

const rowOf = (method: string, address: string): Row | undefined =>
  ROWS.find(({ spec, address: form }) => spec.method === method && form.test(address.split('?')[0] ?? ''));

const refusal = z.strictObject({
  code: z.string().regex(/^[a-z-]+$/),
  params: z.record(z.string(), z.unknown()),
  message: z.string().min(1),
});

export async function holdReply(method: string, address: string, response: Response): Promise<void> {
  const row = rowOf(method, address);
  if (row === undefined) return;
  const { reply } = row.spec;
  const statuses: readonly number[] = 'json' in reply ? [reply.status ?? 200].flat() : [];
  if (!response.ok && !statuses.includes(response.status)) {
    const code = refusal.parse(await response.clone().json()).code as RefusalCode;
    if (!ANY_REFUSAL.has(code) && !row.spec.refuses?.includes(code))
      throw new Error(`${row.name} does not say ${code}`);
    return;
  }
  if ('nothing' in reply) {
    if (response.status !== 204) throw new Error(`${row.name} answers ${response.status}`);
    return;
  }
  if ('file' in reply || 'text' in reply) {
    const types = 'file' in reply ? reply.file : reply.text;
    const type = response.headers.get('content-type')?.split(';')[0] ?? '';
    if (!types.some((one) => one.split(';')[0] === type)) throw new Error(`${row.name} answers a ${type}`);
    return;
  }
  if ('signsIn' in reply) {
    reply.signsIn.parse(await response.clone().json());
    if (response.headers.get('set-cookie') === null) throw new Error(`${row.name} brings no cookie`);
    return;
  }
  if (!statuses.includes(response.status)) throw new Error(`${row.name} answers ${response.status}`);
  const parsed = reply.json.safeParse(await response.clone().json());
  if (!parsed.success) throw new Error(`${row.name}: ${z.prettifyError(parsed.error)}`);
}
