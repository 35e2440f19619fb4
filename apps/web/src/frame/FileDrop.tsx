// Where files are dropped or chosen; they are brought at once, and one is led to what is in them.
import { FileUpload, Icon, Text } from '@chakra-ui/react';
import { fileUploadSlotRecipe } from '@chakra-ui/react/theme';
import { mostFileBytes } from '@dellum/contract';
import { Upload } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useNotice, useTry } from './useNotice.js';

const megabyte = 1024 * 1024;

interface FileDropProps {
  /** What the field is called. */
  readonly label: string;
  /** What is dropped here, as in "Drop a file here". */
  readonly what: string;
  readonly about: string;
  /** Said of one that is too large. */
  readonly instead: string;
  /** One may have so many bytes. */
  readonly largest?: number;
  /** So many at once. */
  readonly most?: number;
  /** Brings them; where one looks at them then, if not here. */
  bring(files: readonly File[]): Promise<string | undefined>;
}

export function FileDrop({ label, what, about, instead, largest = mostFileBytes, most = 1, bring }: FileDropProps) {
  const [coming, setComing] = useState<string>();
  const navigate = useNavigate();
  const attempt = useTry();
  const notice = useNotice();
  const words = coming === undefined ? `Drop ${what} here, or choose ${most === 1 ? 'one' : 'them'}` : `${coming} on the way …`;
  const take = async (files: readonly File[]) => {
    const large = files.find(({ size }) => size > largest);
    if (large) return notice('refused', `${large.name} has more than ${largest / megabyte} MB. ${instead}`);
    setComing(files.map(({ name }) => name).join(', '));
    const place = await attempt(bring(files));
    setComing(undefined);
    if (place !== undefined) await navigate(place);
  };
  return (
    <FileUpload.Root
      recipe={fileUploadSlotRecipe}
      maxFiles={most}
      translations={{ dropzone: words }}
      onFileAccept={({ files }) => {
        if (files.length > 0) void take(files);
      }}
      onFileReject={({ files }) => {
        if (files.length > most) notice('refused', `Bring at most ${most} ${most === 1 ? 'file' : 'files'} at once.`);
      }}
    >
      <FileUpload.HiddenInput aria-label={label} />
      <FileUpload.Dropzone w="100%" minH="0" py="5" px="4" bg="paper" borderColor="slate.border" cursor="pointer">
        <Icon color="inkSoft">
          <Upload size={18} aria-hidden />
        </Icon>
        <FileUpload.DropzoneContent>
          <Text fontWeight="bold">{words}</Text>
          <Text color="inkSoft" fontSize="xs">
            {about}
          </Text>
        </FileUpload.DropzoneContent>
      </FileUpload.Dropzone>
    </FileUpload.Root>
  );
}
