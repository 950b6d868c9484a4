-- Which walls an agent says its work has, whether it can hold work of branches that are not trusted, and whether it is
-- assigned to it; and which work that is.
alter table agent
  add column untrusted boolean not null default false,
  add column walls varchar(500) null,
  add column walled boolean not null default false;
alter table work add column untrusted boolean not null default false;
