// Where a file is dropped or chosen; it is brought at once, and one is led to what is in it.
import { FileUpload, Icon, Text } from '@chakra-ui/react';
import { mostFileBytes } from '@dellum/contract';
import { Upload } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useNotice, useTry } from '../../frame/useNotice.js';

const megabyte = 1024 * 1024;

interface FileDropProps {
  /** What the field is called. */
  readonly label: string;
  /** What is dropped here, as in "Drop a file here". */
  readonly what: string;
  readonly about: string;
  /** Said of one that is too large. */
  readonly instead: string;
  /** Brings it; where one looks at it then. */
  bring(file: File): Promise<string>;
}

export function FileDrop({ label, what, about, instead, bring }: FileDropProps) {
  const [coming, setComing] = useState<string>();
  const navigate = useNavigate();
  const attempt = useTry();
  const notice = useNotice();
  const words = coming === undefined ? `Drop ${what} here, or choose one` : `${coming} is on its way …`;
  const take = async (file: File) => {
    if (file.size > mostFileBytes) return notice('refused', `${file.name} has more than ${mostFileBytes / megabyte} MB. ${instead}`);
    setComing(file.name);
    const place = await attempt(bring(file));
    setComing(undefined);
    if (place !== undefined) await navigate(place);
  };
  return (
    <FileUpload.Root
      maxFiles={1}
      translations={{ dropzone: words }}
      onFileAccept={({ files: [file] }) => {
        if (file) void take(file);
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
