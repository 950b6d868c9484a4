-- Evidence that somebody adds to a version that is sealed: who, and the file that it came in.
alter table evidence add column added_by bigint null references account (id), add column file char(64) null;
