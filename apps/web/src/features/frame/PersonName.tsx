import { Button, Input } from '@chakra-ui/react';
import { useState } from 'react';
import { readPerson, writePerson } from '../../shared/api/person';

/** The name that changes are recorded under; a click lets the person write their own. */
export function PersonName() {
  const [name, setName] = useState(readPerson());
  const [editing, setEditing] = useState(false);
  const keep = () => {
    writePerson(name);
    setEditing(false);
  };
  if (!editing)
    return (
      <Button
        variant="ghost"
        size="xs"
        fontWeight="400"
        color={name ? 'fg' : 'fg.warning'}
        onClick={() => setEditing(true)}
        title="The name your changes are recorded under"
      >
        {name || 'Who are you?'}
      </Button>
    );
  return (
    <Input
      size="xs"
      w="150px"
      autoFocus
      aria-label="Your name"
      placeholder="Your name"
      value={name}
      maxLength={80}
      onChange={(event) => setName(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => event.key === 'Enter' && keep()}
    />
  );
}
