import { say } from '../../../core/base/words/say.js';
import type { Scope } from '../../base/database/client.js';
import { DomainError } from '../../base/http/errors.js';
import { contentsOf } from '../../machine/loops/inside.js';

/** A commissioning begins with a dry loop. */
export async function demandDry(scope: Scope, { id, cameFilled }: { readonly id: string; readonly cameFilled: unknown }): Promise<void> {
  if (cameFilled && (await contentsOf(scope, id)) === null)
    throw new DomainError('refused', say('This loop came filled: take it in as a service. A commissioning begins with a dry loop.'));
}
