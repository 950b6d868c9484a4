-- Which values are sealed together with the name, scope and number that they are of.
alter table secret_revision add column bound boolean not null default false;
