export default async function prepare(): Promise<void> {}
