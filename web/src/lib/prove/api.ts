// What the screen after the first start asks of the server.
import { call, post } from '$lib/api/client';
import type { Invitation, Observation, SimAction, SimView, TroubleView } from '$lib/api/types.gen';

const at = (job: string) => '/jobs/' + encodeURIComponent(job);

export const trouble = (job: string) => call<TroubleView>(fetch, at(job) + '/trouble');
export const invite = (job: string) => call<Invitation>(fetch, at(job) + '/invite', post({}));
export const sim = (job: string) => call<SimView>(fetch, at(job) + '/sim');
export const simDo = (job: string, action: SimAction) =>
	call<SimView>(fetch, at(job) + '/sim', post(action));
/** Reads what a machine told, in any form that is taken. */
export const observation = (file: Blob) =>
	call<Observation>(fetch, '/observations', { method: 'POST', body: file });
