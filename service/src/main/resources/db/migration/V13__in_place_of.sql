-- In whose place a decision was made, where it was a deputy's or one that was handed on.
alter table ruling add column for_account_id bigint null references account (id);
