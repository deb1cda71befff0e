import { Modal } from '@mantine/core';
import { memo } from 'react';
import type { OfferedComment } from '@/core/marking/commentBank';
import { later } from '@/ui/later';
import { useSoonHere } from '@/ui/useSoonHere';

const BankTable = later(async () => (await import('./BankTable')).BankTable);
const soonHere = [BankTable];

interface CommentBankProps {
  questionId: string;
  number: string;
  opened: boolean;
  close: () => void;
  offered: () => readonly OfferedComment[];
}

/** The comments that can be used again at a question: looked through, changed, taken out, exported and imported. */
export const CommentBank = memo(function CommentBank({
  questionId,
  number,
  opened,
  close,
  offered,
}: CommentBankProps) {
  useSoonHere(soonHere);
  return (
    <Modal
      opened={opened}
      onClose={close}
      size="xl"
      title={`Comment bank, question ${number}`}
      closeButtonProps={{ 'aria-label': 'Close the comment bank' }}
    >
      {opened && <BankTable questionId={questionId} number={number} comments={offered()} />}
    </Modal>
  );
});
