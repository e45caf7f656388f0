import { ID_BYTES, idFrom, type NodeId } from '@gullyline/core'

/** A new random id, of a node or of whatever else has one. */
export function newId(): NodeId {
  return idFrom(crypto.getRandomValues(new Uint8Array(ID_BYTES)))
}
