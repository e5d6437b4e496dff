/** Version of the program, as it tells it. */
export const version = '0.1.0';
