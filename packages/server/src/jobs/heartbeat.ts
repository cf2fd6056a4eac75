/** Milliseconds between two signs of life. */
const BEAT_MS = 400;

/**
 * Says now and then how far a job is, and stops it where that is asked for. Where the database is away the job goes on.
 * Gives what ends it.
 *
 * @param say - resolves to whether the job is to stop
 */
export function heartbeat(say: () => Promise<boolean>, stop: AbortController): () => void {
  let isAsking = false;
  const timer = setInterval(async () => {
    if (isAsking) return;
    isAsking = true;
    if (await say().catch(() => false)) stop.abort();
    isAsking = false;
  }, BEAT_MS);
  return () => clearInterval(timer);
}
