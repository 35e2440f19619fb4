// Where a file is dropped or chosen; it is brought at once, and one is led to what is in it.
import { FileUpload, Icon, Text } from '@chakra-ui/react';
import { mostFileBytes } from '@dellum/contract';
import { Upload } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { bringFile } from '../../data/returnedApi.js';
import { useAppDispatch } from '../../data/store.js';
import { useNotice, useTry } from '../../frame/useNotice.js';

const megabyte = 1024 * 1024;

export function FileDrop({ registerId }: { readonly registerId?: string }) {
  const [coming, setComing] = useState<string>();
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const attempt = useTry();
  const notice = useNotice();
  const words = coming === undefined ? 'Drop a file here, or choose one' : `${coming} is on its way …`;
  const bring = async (file: File) => {
    if (file.size > mostFileBytes)
      return notice('refused', `${file.name} has more than ${mostFileBytes / megabyte} MB. Bring it in parts.`);
    setComing(file.name);
    const brought = await attempt(dispatch(bringFile(file, registerId)));
    setComing(undefined);
    if (brought) await navigate(`/came-back/${brought.id}`);
  };
  return (
    <FileUpload.Root
      maxFiles={1}
      translations={{ dropzone: words }}
      onFileAccept={({ files: [file] }) => {
        if (file) void bring(file);
      }}
    >
      <FileUpload.HiddenInput aria-label="File" />
      <FileUpload.Dropzone w="100%" minH="0" py="5" px="4" bg="paper" borderColor="slate.border" cursor="pointer">
        <Icon color="inkSoft">
          <Upload size={18} aria-hidden />
        </Icon>
        <FileUpload.DropzoneContent>
          <Text fontWeight="bold">{words}</Text>
          <Text color="inkSoft" fontSize="xs">
            A workbook (.xlsx, .ods) or a table of texts (CSV)
          </Text>
        </FileUpload.DropzoneContent>
      </FileUpload.Dropzone>
    </FileUpload.Root>
  );
}
