# frozen_string_literal: true

module Server
  # The Dispatch room.
  module OrderRoutes
    def self.registered(app)
      app.get "/api/cuts/:id/orders" do
        answer(Cut.fetch(params["id"]).orders.includes(:outputs, cut: :project).order(id: :desc).map(&:to_h))
      end

      app.post "/api/cuts/:id/orders" do
        cut = Cut.fetch(params["id"])
        body = body_json
        shots = body["shots"].nil? ? nil : every(cut.shots.includes(clip: :media_root), ids(body, "shots"))
        status 201
        answer(Order.place(cut:, sheets: body["outputs"], shots:, template: body["template"], handles: body.fetch("handles", 0), skip: body["skip"] == true, baked: body["baked"] == true).reload.to_h)
      end

      # What outputs would be, before they are ordered: a line of each, warnings, and why one cannot be.
      app.post "/api/cuts/:id/orders/look" do
        cut = Cut.fetch(params["id"])
        body = body_json
        shots = body["shots"].nil? ? nil : every(cut.shots.includes(clip: :media_root), ids(body, "shots")).each { |shot| shot.clip.association(:project).target = cut.project }
        answer(OrderLook.new(cut, sheets: body["outputs"], template: body["template"], shots:).to_a)
      end

      # What an output's picture is, with all that is drawn over it.
      app.post "/api/cuts/:id/orders/preview" do
        cut = Cut.fetch(params["id"])
        body = body_json
        raise Mordant::ParameterError.new(path: "output", expected: "an object", found: body["output"]) unless body["output"].is_a?(Hash)

        sheet = Order.sheet(cut.project, body["output"].except("name"))
        content_type "image/png"
        Pictures::Desk.current.gate.pass(body["screen"]&.to_s, body["screen"] ? whole(body, "sequence") : 0) { Pictures::SheetPreview.png(cut, sheet, whole(body, "frame")) }
      end

      # The cut as it relinks to what an order wrote.
      app.get "/api/orders/:id/list.:format" do
        order = Order.fetch(params["id"])
        list = ReturnedList.new(order, params["of"])
        attachment "#{order.cut.name.gsub(/[^\w.-]+/, "_")}.#{params["format"]}"
        content_type "text/plain"
        case params["format"]
        when "edl" then list.edl
        when "otio" then list.otio
        else raise Mordant::ParameterError.new(path: "format", expected: "edl or otio", found: params["format"])
        end
      end

      app.get "/api/presets" do
        answer(Mordant::Deliver::Presets::ALL.map(&:to_h) + OrderPreset.order(:name).map(&:to_h))
      end

      app.put "/api/projects/:id/presets" do
        body = body_json
        OrderPreset.keep(Project.fetch(params["id"]), body["name"], body["outputs"])
        answer(Mordant::Deliver::Presets::ALL.map(&:to_h) + OrderPreset.order(:name).map(&:to_h))
      end

      app.delete "/api/presets/:id" do
        OrderPreset.fetch(params["id"]).destroy!
        answer(Mordant::Deliver::Presets::ALL.map(&:to_h) + OrderPreset.order(:name).map(&:to_h))
      end

      app.patch "/api/orders/:id" do
        order = Order.fetch(params["id"])
        order.change(body_json.slice("paused", "priority"))
        answer(order.reload.to_h)
      end

      app.post "/api/outputs/:id/cancel" do
        output = Output.fetch(params["id"])
        output.cancel
        answer(output.reload.to_h)
      end

      app.post "/api/outputs/:id/retry" do
        output = Output.fetch(params["id"])
        output.retry
        answer(output.reload.to_h)
      end

      # What the check of it found, as a page.
      app.get "/api/outputs/:id/report" do
        output = Output.fetch(params["id"])
        page = "#{output.file.delete_suffix(output.made_as.format.extension)}.report.html"
        halt 404, {error: "there is no report of #{output.path} yet"}.to_json unless File.exist?(page)
        content_type "text/html"
        send_file(page)
      end

      app.get "/api/outputs/:id/file" do
        output = Output.fetch(params["id"])
        halt 404, {error: "#{output.path} is not finished"}.to_json unless output.status == "done" && File.exist?(output.file)
        File.directory?(output.file) ? archive(output) : send_file(output.file, disposition: :attachment)
      end

      app.helpers do
        # The files of a sequence as one tar file, made while it is sent.
        def archive(output)
          name = File.basename(output.file)
          content_type "application/x-tar"
          headers "content-disposition" => "attachment; filename=\"#{name}.tar\""
          stream do |out|
            Tar.write(out) { |tar| Dir.children(output.file).sort.each { |file| tar.add("#{name}/#{file}", File.binread(File.join(output.file, file))) } }
          end
        end
      end
    end
  end
end
