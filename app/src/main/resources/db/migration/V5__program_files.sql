alter table proof_run add column stopped_file varchar(80);
