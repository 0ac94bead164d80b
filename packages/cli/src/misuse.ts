/** A call that cannot be carried out as given: a wrong option, a file that is not there. Exit code 2. */
export class Misuse extends Error {}
