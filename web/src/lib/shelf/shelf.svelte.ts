// The list of the shelf as it is shown: what is asked for, and the rows that came.
import { api } from '$lib/api/client';
import { refused } from '$lib/api/refused';
import type { ShelfList, ShelfRow } from '$lib/api/types.gen';
import type { Asked } from './address';

export class Shelf {
	list = $state.raw<ShelfList>() as ShelfList;
	asking = $state(false);
	readonly asked: Asked;

	constructor(list: ShelfList, asked: Asked) {
		this.list = list;
		this.asked = asked;
	}

	/** Shows a part as it is now; one that is new to the list stands first. */
	put(row: ShelfRow) {
		const { list } = this;
		const there = list.parts.some((r) => r.stock.part.id === row.stock.part.id);
		this.list = {
			...list,
			count: list.count + (there ? 0 : 1),
			parts: there
				? list.parts.map((r) =>
						r.stock.part.id === row.stock.part.id ? { ...row, goes: r.goes } : r
					)
				: [row, ...list.parts]
		};
	}

	async more() {
		if (!this.list.next || this.asking) return;
		this.asking = true;
		try {
			const page = await api.shelf(fetch, this.asked, this.list.next);
			const there = this.list.parts.map((r) => r.stock.part.id);
			const parts = page.parts.filter((r) => !there.includes(r.stock.part.id));
			this.list = { ...page, parts: [...this.list.parts, ...parts] };
		} catch (e) {
			refused(e);
		} finally {
			this.asking = false;
		}
	}

	async again() {
		this.list = await api.shelf(fetch, this.asked);
	}
}
