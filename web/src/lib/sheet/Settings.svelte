<script lang="ts">
	// Firmware choices in this machine's own words. Their effects are rules.
	import { Button } from 'flowbite-svelte';
	import { useDraft } from './draft.svelte';
	import { ROLE } from './choices';
	import Field from './Field.svelte';

	const get = useDraft();
	const draft = $derived(get());
	const s = $derived(draft.sheet);

	function add() {
		draft.change((x) =>
			x.settings.push({
				id: draft.free('settings', 'setting-'),
				name: 'A setting',
				options: [
					{ value: 'off', name: 'Off' },
					{ value: 'on', name: 'On' }
				]
			})
		);
	}
	function addOption(i: number) {
		draft.change((x) => {
			const options = x.settings[i]?.options;
			for (let n = (options?.length ?? 0) + 1; ; n++) {
				const value = 'option-' + n;
				if (options?.some((o) => o.value === value)) continue;
				options?.push({ value, name: 'Option ' + n });
				return;
			}
		});
	}
	/** An option's value is named by rules and the default: they follow. */
	function revalue(i: number, j: number, to: string) {
		draft.change((x) => {
			const t = x.settings[i];
			const o = t?.options[j];
			if (!t || !o) return;
			for (const r of x.rules)
				for (const c of r.when) if (c.setting === t.id && c.is === o.value) c.is = to;
			if (t.default === o.value) t.default = to;
			o.value = to;
		});
	}
</script>

<p class="text-soft">
	Write each as the set-up screen prints it. What a choice does is said by a rule.
</p>
<ul class="grid gap-4">
	{#each s.settings as t, i (i)}
		<li class="border-t border-line pt-2">
			<div class="grid gap-2 sm:grid-cols-2">
				<Field
					at="/settings/{i}/id"
					label="short name"
					max={40}
					onset={(v) => v && draft.rename('settings', i, String(v))}
				/>
				<Field at="/settings/{i}/name" label="as printed" max={120} />
				<Field at="/settings/{i}/role" label="what it is for" choices={ROLE} />
				<Field at="/settings/{i}/where" label="way through the menus" max={200} />
				<Field at="/settings/{i}/caution" label="what a change can break" max={300} />
			</div>
			<div class="mt-2 flex flex-wrap items-end gap-2">
				{#each t.options as o, j (j)}
					<div class="flex items-end gap-1 rounded border border-line p-1">
						<Field
							at="/settings/{i}/options/{j}/value"
							label="option"
							max={40}
							onset={(v) => v && revalue(i, j, String(v))}
						/>
						<Field at="/settings/{i}/options/{j}/name" label="as printed" max={120} />
						{#if t.options.length > 2}
							<button
								class="size-11 rounded border border-line hover:bg-overtint"
								aria-label="Take option {o.name} away"
								onclick={() => draft.change((x) => x.settings[i]?.options.splice(j, 1))}>×</button
							>
						{/if}
					</div>
				{/each}
				<Button color="alternative" onclick={() => addOption(i)}>Add an option</Button>
				<Field
					at="/settings/{i}/default"
					label="as delivered"
					choices={[
						{ value: undefined, name: '?' },
						...t.options.map((o) => ({ value: o.value, name: o.name }))
					]}
				/>
				<Button color="alternative" onclick={() => draft.remove('settings', i)}
					>Take {t.name} away</Button
				>
			</div>
		</li>
	{/each}
</ul>
<Button color="alternative" class="mt-2" onclick={add}>Add a setting</Button>
