// Tab, line feed and carriage return are what someone typed; the other controls are what a broken copy or a machine left.
// eslint-disable-next-line no-control-regex -- they are what is removed
const controls = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f\ufffe\uffff]/g;

/** A text without what no database keeps and no page shows: control characters, and halves of characters, such as an emoji cut in two leaves. No one
 * sees either, and no one typed them. */
export const storable = (text: string): string => text.replace(controls, '').replace(/\p{Cs}/gu, '\ufffd');
