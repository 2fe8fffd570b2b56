/** Two letters that stand for a person's name: `Ebba Rowe-Singh` becomes `ER`. */
export function initialsOf(name: string): string {
	return name
		.split(/[\s-]+/)
		.map((part) => part[0])
		.join('')
		.slice(0, 2)
}
