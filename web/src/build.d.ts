/** Which build of the program this is. */
declare const __BUILD__: string;
