interface Props {
    html: string;
    label: string;
    onChange: (html: string) => void;
    autoFocus?: boolean;
}
/** Rich text in place: paragraphs, lists, strong and emphasised words. Tables and pictures are shown, not made, here. */
export default function RichTextEditor({ html, label, onChange, autoFocus }: Props): import("react/jsx-runtime").JSX.Element | null;
export {};
