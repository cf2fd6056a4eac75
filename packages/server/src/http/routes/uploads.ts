/** Files of somebody's computer, on their way to where loose material arrives. */
import { UPLOAD_ENDPOINTS } from '@nesting/contract';
import { beginUpload, endFile, endUpload, howFar, takePiece } from '../../flows/projects/uploads';
import { bytesOf, routesOf } from '../handlers';

export const UPLOADS = routesOf(UPLOAD_ENDPOINTS, {
  beginUpload: ({ world, me, body }) => beginUpload(world, me, body),
  readUpload: ({ world, me, params }) => howFar(world, me, params.id),
  sendPiece: async ({ world, me, params, query, body }) => takePiece(world, me, params.id, query, await bytesOf(body)),
  endFile: ({ world, me, params, body }) => endFile(world, me, params.id, body),
  endUpload: ({ world, me, params }) => endUpload(world, me, params.id),
});
