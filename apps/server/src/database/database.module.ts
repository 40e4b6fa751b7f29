import { Global, Module } from '@nestjs/common';
import { SequelizeModule } from '@nestjs/sequelize';
import { CONFIG, type Config } from '../config/config.module.js';
import { MODELS } from './models.js';

@Global()
@Module({
  imports: [
    SequelizeModule.forRootAsync({
      inject: [CONFIG],
      useFactory: (config: Config) => ({
        dialect: 'postgres' as const,
        uri: config.databaseUrl,
        models: MODELS,
        logging: false,
        autoLoadModels: false,
        synchronize: false,
        pool: { max: 10 },
        retryAttempts: 2,
        retryDelay: 500,
      }),
    }),
  ],
})
export class DatabaseModule {}
