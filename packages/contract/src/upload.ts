/** Files of somebody's computer, sent in pieces to a volume on which loose material arrives. */
import { z } from 'zod';
import { amount, list, record, uuid } from './reply';

/** Files of one upload. */
const MOST_SENT = 20_000;

const sha256 = z.string().regex(/^[0-9a-f]{64}$/);

const uploadFile = z
  .strictObject({
    /** From what was chosen. */
    path: z.string().min(1).max(4096),
    /** Bytes. */
    size: z.int().min(0),
    /** Milliseconds since 1970. */
    modified: z.number().min(-8.64e15).max(8.64e15),
  })
  .readonly();
export type UploadFile = z.infer<typeof uploadFile>;

export const beginUploadSchema = z.strictObject({
  volume: z.string().min(1).max(200),
  /** What the folder is called that is made for them. */
  name: z.string().min(1).max(200),
  files: z.array(uploadFile).min(1).max(MOST_SENT).readonly(),
});
export type BeginUpload = z.infer<typeof beginUploadSchema>;

export const uploadSchema = record({
  id: uuid,
  volume: z.string(),
  /** The folder that was made for them, in the volume's root. */
  folder: z.string(),
  /** Of each file, in the order in which they were named: bytes that are there; `null` where it is whole. */
  received: list(amount.nullable()),
});
export type Upload = z.infer<typeof uploadSchema>;

export const pieceSchema = z.object({
  /** The file's number. */
  file: z.coerce.number().int().min(0).max(MOST_SENT),
  /** Bytes in front of it. */
  at: z.coerce.number().int().min(0),
});

/** How many bytes are there: sending goes on from them. */
export const pieceAnswerSchema = record({ received: amount });

export const endFileSchema = z.strictObject({
  file: z.int().min(0).max(MOST_SENT),
  /** Of its pieces, in their order. */
  pieces: z.array(sha256).max(2_000_000).readonly(),
});

/** `placed`: it is whole, proved, and in its place. `differs`: so many bytes are right, and sending goes on from them. */
export const endFileAnswerSchema = record({
  state: z.enum(['placed', 'differs', 'taken']),
  received: amount,
});
