// The simulated machine of a job, as it stands.
import { refused } from '$lib/api/refused';
import type { SimAction, SimView } from '$lib/api/types.gen';
import * as api from './api';

export class Bench {
	view = $state.raw<SimView>();
	busy = $state(false);
	readonly job: string;
	constructor(job: string) {
		this.job = job;
	}
	async look(): Promise<void> {
		try {
			this.view = await api.sim(this.job);
		} catch (e) {
			refused(e);
		}
	}
	async do(action: SimAction): Promise<void> {
		this.busy = true;
		try {
			this.view = await api.simDo(this.job, action);
		} catch (e) {
			refused(e);
		} finally {
			this.busy = false;
		}
	}
}
