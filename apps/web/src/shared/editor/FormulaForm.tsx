import { Box, Button, Checkbox, Flex, Input } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { RichText } from '../ui/rich-text';
import { useFocusSoon } from '../ui/use-focus-soon';
import { buildFormula } from './type-formula';

interface Props {
  typed: string;
  onDone: (mathml: string) => void;
  onClose: () => void;
}

/** Types a formula as TeX and shows what it will be. */
export function FormulaForm({ typed: begun, onDone, onClose }: Props) {
  const [typed, setTyped] = useState(begun);
  const field = useFocusSoon<HTMLInputElement>();
  const [own, setOwn] = useState(false);
  const built = useMemo(() => {
    try {
      return { mathml: typed.trim() ? buildFormula(typed, own) : '' };
    } catch (error) {
      return { wrong: (error as Error).message };
    }
  }, [typed, own]);
  const done = () => built.mathml && onDone(built.mathml);
  return (
    <Box p="2" borderTopWidth="1px" bg="bg.subtle">
      <Flex gap="2" align="center" wrap="wrap">
        <Input
          size="xs"
          flex="1"
          minW="180px"
          bg="bg.panel"
          fontFamily="mono"
          aria-label="Formula, as TeX"
          placeholder="Q = \frac{V}{t}"
          value={typed}
          ref={field}
          onChange={(event) => setTyped(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === 'Enter') done();
            else if (event.key === 'Escape') onClose();
            else return;
            event.preventDefault();
            event.stopPropagation();
          }}
        />
        <Checkbox.Root size="sm" checked={own} onCheckedChange={({ checked }) => setOwn(checked === true)}>
          <Checkbox.HiddenInput />
          <Checkbox.Control />
          <Checkbox.Label fontWeight="400">On a line of its own</Checkbox.Label>
        </Checkbox.Root>
        <Button size="2xs" disabled={!built.mathml} onClick={done}>
          Put in
        </Button>
        <Button size="2xs" variant="ghost" onClick={onClose}>
          Close
        </Button>
      </Flex>
      {built.mathml && <RichText className="rich" mt="1.5" fontFamily="serif" fontSize="16px" html={built.mathml} role="img" aria-label="The formula" />}
      {built.wrong && (
        <Box mt="1.5" color="fg.warning" role="status">
          {built.wrong}
        </Box>
      )}
    </Box>
  );
}
