/** Files of somebody's computer, on their way to where loose material arrives. */
import { PIECE_BYTES } from '@nesting/core';
import { endpoint } from '../endpoint';
import { WORKING } from '../roles';
import {
  beginUploadSchema,
  endFileAnswerSchema,
  endFileSchema,
  pieceAnswerSchema,
  pieceSchema,
  uploadSchema,
} from '../upload';
import { bytes, id, nothing } from './params';
import { FOLDER, VOLUME } from './refused';

const UPLOAD = ['no-upload', ...FOLDER, ...VOLUME, 'volume-full'] as const;
const LIST_BYTES = 16 * 2 ** 20;

export const UPLOAD_ENDPOINTS = {
  beginUpload: endpoint({
    method: 'POST',
    path: '/api/uploads',
    does: 'Begins to take files of one’s own computer, or goes on with the same ones that were cut short',
    roles: WORKING,
    whose: 'own',
    body: beginUploadSchema,
    most: LIST_BYTES,
    reply: { json: uploadSchema, status: 201 },
    refuses: [...FOLDER, ...VOLUME, 'volume-full', 'no-inbox', 'uploads-full', 'no-room', 'name-not-sent'],
  }),
  readUpload: endpoint({
    method: 'GET',
    path: '/api/uploads/:id',
    does: 'Says how far files are that are being sent',
    roles: WORKING,
    whose: 'own',
    params: id,
    reply: { json: uploadSchema },
    refuses: [...UPLOAD],
  }),
  sendPiece: endpoint({
    method: 'PUT',
    path: '/api/uploads/:id/piece',
    does: 'Takes the next piece of a file, and says how much of it is there',
    roles: WORKING,
    whose: 'own',
    params: id,
    query: pieceSchema,
    ...bytes,
    most: PIECE_BYTES,
    reply: { json: pieceAnswerSchema },
    refuses: [...UPLOAD],
  }),
  endFile: endpoint({
    method: 'POST',
    path: '/api/uploads/:id/file',
    does: 'Proves a file that was sent by its checksums, read back from the disk, and puts it in its place',
    roles: WORKING,
    whose: 'own',
    params: id,
    body: endFileSchema,
    most: LIST_BYTES,
    reply: { json: endFileAnswerSchema },
    refuses: [...UPLOAD],
  }),
  endUpload: endpoint({
    method: 'DELETE',
    path: '/api/uploads/:id',
    does: 'Ends the sending of files: what is not whole of them goes, what is stays',
    roles: WORKING,
    whose: 'own',
    params: id,
    reply: nothing,
    refuses: [...UPLOAD],
  }),
};
