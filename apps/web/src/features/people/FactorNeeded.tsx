// Before anything else: the house asks for a second factor, and one has none yet.
import { Button, Text } from '@chakra-ui/react';
import type { Me } from '@dellum/contract';
import { api } from '../../data/api.js';
import { useSignOutMutation } from '../../data/sessionApi.js';
import { useAppDispatch } from '../../data/store.js';
import { Card } from '../../frame/Card.js';
import { Notices } from '../../frame/Notices.js';
import { SecondFactor } from './SecondFactor.js';

export function FactorNeeded({ me, done }: { me: Me; done: () => void }) {
  const [signOut] = useSignOutMutation();
  const dispatch = useAppDispatch();
  const leave = async () => {
    await signOut().unwrap();
    dispatch(api.util.resetApiState());
  };
  return (
    <Card title="One more step" about={`${me.house.name} asks every ${me.role} for a second factor at the sign-in.`}>
      <SecondFactor done={done} />
      <Text mt="5" color="inkSoft">
        You are signed in as {me.name}.{' '}
        <Button variant="plain" px="0" color="damson.fg" onClick={() => void leave()}>
          Sign out
        </Button>
      </Text>
      <Notices />
    </Card>
  );
}
