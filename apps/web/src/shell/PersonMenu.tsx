// The menu of the person: what they are, paper, help, their account, signing out.
import { Box, Button, Menu, Portal, Text } from '@chakra-ui/react';
import { roleMeaning } from '@dellum/contract';
import { CircleHelp, KeyRound, Moon, Sun } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { forgetKept } from '../data/keptInTab.js';
import { leaving, useSignOutMutation } from '../data/sessionApi.js';
import { useAppSelector } from '../data/store.js';
import { Question } from '../frame/Confirm.js';
import { chooseColourMode, useColourMode } from '../theme/index.js';
import { initials } from '../frame/initials.js';
import type { PersonMenuProps } from './person.js';

/** It stands in the place of the button that asked for it, and is open. */
export function PersonMenu({ me, help }: PersonMenuProps) {
  const mode = useColourMode();
  const navigate = useNavigate();
  const [signOut] = useSignOutMutation();
  const unstored = useAppSelector((state) => Object.keys(state.drafts).length);
  const [asking, setAsking] = useState(false);
  const leave = async () => {
    leaving.begin();
    await signOut()
      .unwrap()
      .catch(() => undefined);
    // Loaded anew: nothing that one has seen or typed stays for whoever comes next.
    forgetKept();
    window.location.assign(`/sign-in?house=${me.house.key}`);
  };
  return (
    <>
      <Menu.Root defaultOpen positioning={{ placement: 'bottom-end' }}>
        <Menu.Trigger asChild>
          <Button variant="subtle" aria-label={`${me.name}, ${me.role}`}>
            {initials(me.name)}
          </Button>
        </Menu.Trigger>
        <Portal>
          <Menu.Positioner>
            <Menu.Content>
              <Box px="3" py="2">
                <Text fontWeight="bold">{me.name}</Text>
                <Text color="inkSoft">
                  {me.role}, {roleMeaning[me.role]}
                </Text>
                <Text color="inkSoft">{me.house.name}</Text>
              </Box>
              <Menu.Separator />
              <Menu.Item value="mode" onClick={() => chooseColourMode(mode === 'dark' ? 'light' : 'dark')}>
                {mode === 'dark' ? <Sun size={14} aria-hidden /> : <Moon size={14} aria-hidden />}{' '}
                {mode === 'dark' ? 'Light paper' : 'Dark paper'}
              </Menu.Item>
              <Menu.Item value="keys" onClick={help}>
                <CircleHelp size={14} aria-hidden /> Help and keys
              </Menu.Item>
              <Menu.Item value="account" onClick={() => void navigate('/account')}>
                <KeyRound size={14} aria-hidden /> My account
              </Menu.Item>
              <Menu.Item value="out" onClick={() => (unstored > 0 ? setAsking(true) : void leave())}>
                Sign out
              </Menu.Item>
            </Menu.Content>
          </Menu.Positioner>
        </Portal>
      </Menu.Root>
      <Question
        ask="Sign out"
        about={`${unstored} ${unstored === 1 ? 'text that you typed is' : 'texts that you typed are'} not stored: refused, or waiting. ${unstored === 1 ? 'It goes' : 'They go'} when you sign out.`}
        act={unstored === 1 ? 'Sign out without it' : 'Sign out without them'}
        onConfirm={() => void leave()}
        open={asking}
        close={() => setAsking(false)}
      />
    </>
  );
}
