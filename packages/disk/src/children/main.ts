/** The program of a process that works on disks, and of the threads in it that hash. */
import { helpCheck } from '../check/check-helper';
import { standInFolders } from '../roots/handle';
import { hashIfAsked, hashThreadsBy } from '../roots/hash-thread';
import { doTasks } from './do-tasks';

if (!hashIfAsked()) {
  standInFolders();
  hashThreadsBy(new URL(import.meta.url));
  // Whoever asked is gone: nobody would hear what is found, and somebody else may be at it by now.
  process.on('disconnect', () => process.exit(0));
  if (process.argv[2] === 'check-helper') helpCheck();
  else doTasks();
}
