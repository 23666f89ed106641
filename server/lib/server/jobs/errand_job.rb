# frozen_string_literal: true

module Server
  # Does an errand.
  class ErrandJob < CountedJob
    self.maximum_retry_count = 2

    # Nobody wants it any more.
    class Cancelled < StandardError; end

    def work(errand_id)
      @errand = Errand.find_by(id: errand_id)
      return unless @errand&.live?

      @errand.update!(status: "running", done: 0)
      result = @errand.work.call(@errand) { |done| report(done) }
      Errand.where(id: errand_id, status: "running").update_all(status: "done", done: @errand.count, result:)
    rescue Cancelled
      Errand::KINDS.fetch(@errand.kind).forget(@errand)
    rescue Mordant::Error, SystemCallError => e
      @errand.update!(status: "failed", message: Complaint.of(e))
    end

    def set_aside(errand_id) = Errand.where(id: errand_id).update_all(status: "failed", message: REASON)

    private

    def report(done)
      raise Cancelled unless @errand.live?

      @errand.update_columns(done:)
    end
  end
end
