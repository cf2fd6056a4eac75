/** The face of the server, for the demo and the tests. */
export { buildPaths } from './build-paths';
export { type Config, configOf, Misconfigured } from './config';
export { type Client, type Db, openDb, transaction } from './db/client';
export { DatabaseNewer, migrate } from './db/migrate';
export { insertEdition, insertPerson, upsertRegisters } from './db/queries/house/install';
export { writePrefixes } from './db/queries/house/volumes';
export { insertBlockEdition, listBlocks } from './db/queries/rules/blocks';
export { cancelCheck, checkProject, goOnWithCheck, runCheck, takeOverSilentChecks } from './flows/checks/check-project';
export { takeUpVolume } from './flows/house/volumes';
export { settleStarts, startProject } from './flows/projects/start-project';
export { startersBeside } from './flows/rules/take-template';
export { Refused, type World } from './flows/world';
export { makeApp } from './http/app';
export { ROUTES } from './http/routes';
export { closeWorld, openWorld, type Running, startServer, workBatches } from './serve';
export { makeAuth } from './sign-in/auth';
export { DEMO_PASSWORD } from './sign-in/demo';
export { hashPassword } from './sign-in/password';
