/** Passwords are kept as Argon2id hashes (RFC 9106, second recommended setting: 64 MiB, three passes). */
import { hash, verify } from '@node-rs/argon2';

export const hashPassword = (password: string): Promise<string> =>
  hash(password, { memoryCost: 65_536, timeCost: 3, parallelism: 1 });

export const verifyPassword = ({ hash: kept, password }: { hash: string; password: string }): Promise<boolean> =>
  verify(kept, password);
