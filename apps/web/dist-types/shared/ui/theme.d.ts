import '@fontsource-variable/commissioner';
import '@fontsource-variable/literata';
import '@fontsource-variable/literata/wght-italic.css';
import '@fontsource-variable/sometype-mono';
export declare const system: import("@chakra-ui/react").SystemContext;
