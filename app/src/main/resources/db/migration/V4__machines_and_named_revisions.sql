alter table machine add column deleted_at timestamp(6) with time zone;
alter table revision add column name varchar(80);
alter table revision add column origin varchar(200);
