// Where an office drops, chooses or pastes what it has: it becomes a proposal for sheets and lists.
import { Box, Heading, Text } from '@chakra-ui/react';
import { mostAdoptedBytes, mostAdoptedFiles } from '@dellum/contract';
import { useNavigate } from 'react-router';
import { adoptFiles } from '../../data/adoptionsApi.js';
import { problemWords } from '../../data/problem.js';
import { useAppDispatch } from '../../data/store.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { FileDrop } from '../../frame/FileDrop.js';

/** `proposal`: the one to which files are added. */
export function AdoptDrop({ proposal }: { readonly proposal?: string }) {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const attempt = useTry();
  const notice = useNotice();
  const bring = async (files: readonly File[]) => {
    const { id, problem } = await dispatch(adoptFiles(files, proposal));
    if (problem) notice('refused', problemWords(problem));
    return `/proposal/${id}`;
  };
  const paste = async (text: string) => {
    const place = await attempt(bring([new File([text], 'Pasted table.csv')]));
    if (place !== undefined) await navigate(place);
  };
  return (
    <Box
      as="section"
      aria-label={proposal === undefined ? 'Begin with what you have' : 'More files'}
      onPaste={(event) => {
        const text = event.clipboardData.getData('text/plain');
        if (text.trim() === '' || event.clipboardData.files.length > 0) return;
        event.preventDefault();
        void paste(text);
      }}
    >
      {proposal === undefined && (
        <>
          <Heading as="h2" fontSize="md">
            Begin with what you have
          </Heading>
          <Text color="inkSoft" mb="2">
            Sheets, lists and their choices are made out of the files of your office. You look at all of it before anything is stored.
          </Text>
        </>
      )}
      <FileDrop
        label={proposal === undefined ? 'Files of your office' : 'More files'}
        what={proposal === undefined ? 'files' : 'more files'}
        largest={mostAdoptedBytes}
        most={mostAdoptedFiles}
        about="Workbooks (.xlsx, .ods), tables of texts (CSV) or JSON Lines; or paste a table here"
        instead="Bring it in parts."
        bring={bring}
      />
    </Box>
  );
}
