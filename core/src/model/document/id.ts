/** An id: a kind prefix and ten random characters, made outside the core. */
export type Id = string;
