# frozen_string_literal: true

module Server
  # A job that counts how often it is begun without getting further. One whose work has killed
  # its worker again and again is not begun once more: it is set aside with its reason, and
  # holds nothing up.
  class CountedJob < Que::Job
    MOST = 3 # times it is begun
    REASON = "working on it stopped a worker #{MOST} times, and it is set aside; look whether memory and disk suffice, then try again".freeze

    # @param arguments [Array] of the job
    def run(*arguments)
      (begun > MOST) ? set_aside(*arguments) : work(*arguments)
    end

    private

    # To be called when more is done than ever before: what stopped it until now is behind it.
    def got_further
      return if @further

      @further = true
      count("data - 'begun'") if que_attrs[:id]
    end

    # @return [Integer] how often it has been begun, this time included
    def begun
      que_attrs[:id] ? count("jsonb_set(data, '{begun}', to_jsonb(coalesce((data->>'begun')::int, 0) + 1))") : 1
    end

    def count(data)
      sql = ActiveRecord::Base.sanitize_sql(["UPDATE que_jobs SET data = #{data} WHERE id = ? RETURNING (data->>'begun')::int", que_attrs[:id]])
      ActiveRecord::Base.connection.select_value(sql).to_i
    end
  end
end
