# frozen_string_literal: true

module Server
  # The queue of an order: what is to be done next of its stretches.
  module Work
    BEHIND = 1 # in priority

    module_function

    # Queues the beginning of a stretch, behind the parts of those that have begun.
    def begin_with(order, shot_id)
      OpenJob.enqueue(order.id, shot_id, job_options: {priority: order.priority + BEHIND})
    end

    # Makes the parts of a stretch, if there are none yet, and queues those that wait.
    #
    # @param quick [Boolean] a frame may take so little time that beginning with a part would show
    def divide(order, shot_id, frames, quick: false)
      Part.transaction do
        order.lock!
        unless Part.of(order, shot_id).exists?
          (0...frames).each_slice(quick ? Part::QUICK : Part::FRAMES) { |some| Part.create!(order:, shot_id:, first: some.first, frames: some.size) }
        end
        waiting = Part.of(order, shot_id).where(status: "waiting").order(:first).pluck(:id)
        (waiting - queued("Server::PartJob", waiting)).each { |id| PartJob.enqueue(id, job_options: {priority: order.priority}) }
      end
    end

    # @return [Array<Integer>] those of the ids that a job is queued for
    def queued(job, ids)
      sql = ActiveRecord::Base.sanitize_sql(["SELECT (args->>0)::bigint FROM que_jobs WHERE job_class = ? AND finished_at IS NULL AND (args->>0)::bigint IN (?)", job, ids])
      ids.empty? ? [] : ActiveRecord::Base.connection.select_values(sql)
    end

    # Queues the end of outputs, once all parts of their stretch are done.
    def conclude(order, shot_id)
      Part.transaction do
        order.lock!
        next if Part.of(order, shot_id).where.not(status: "done").exists?

        order.outputs.where(shot_id:, status: "running", stage: "frames").each do |output|
          output.update!(stage: "ending")
          end_of(output)
        end
      end
    end

    # Goes before parts: what is rendered should be had.
    def end_of(output)
      FinishJob.enqueue(output.id, job_options: {priority: [output.order.priority - 1, 1].max})
    end

    # Queues again what was paused, or has failed.
    def go_on(order)
      order.outputs.reload.reject(&:over?).map(&:shot_id).uniq.each do |shot_id|
        Part.of(order, shot_id).where(status: "failed").update_all(status: "waiting")
        begin_with(order, shot_id)
      end
    end

    # Gives what waits the order's priority.
    def reorder(order)
      waiting = {"Server::OpenJob" => [[order.id], BEHIND], "Server::PartJob" => [order.parts.pluck(:id), 0], "Server::FinishJob" => [order.outputs.pluck(:id), 0]}
      waiting.each do |job, (keys, behind)|
        next if keys.empty?

        sql = ActiveRecord::Base.sanitize_sql(["UPDATE que_jobs SET priority = ? WHERE job_class = ? AND (args->>0)::bigint IN (?)", order.priority + behind, job, keys])
        ActiveRecord::Base.connection.execute(sql)
      end
    end
  end
end
